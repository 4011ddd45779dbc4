<script lang="ts">
  import { costText } from '$lib/core/money/cost-text';
  import type { PointsRule } from '$lib/core/points/points-rule';
  import { setPoints, typedPoints } from '$lib/core/points/set-points';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import Tick from '$lib/ui/forms/Tick.svelte';
  import { setPointsWords } from '$lib/ui/words/points-words';
  import { StallForm as Form } from '../forms/stall-form.svelte';
  import StallForm from '../forms/StallForm.svelte';
  import { useStall } from '../stall.svelte';

  interface Props {
    rule: PointsRule;
  }
  const { rule }: Props = $props();
  const stall = useStall();
  const { currency } = stall.business;
  const form = new Form({
    about: 'points',
    from: stall.business.pointsStamp,
    // svelte-ignore state_referenced_locally
    begin: typedPoints(
      rule,
      (amount) => stall.money.plain(amount),
      (worth) => costText(worth, currency),
    ),
    command: (typed) => () => setPoints(newId, typed, currency),
    says: (refusal) => ({ field: refusal.field, says: setPointsWords(refusal, stall.money) }),
    saved: ({ isOn }) => (isOn ? 'Saved. Points are given from now on.' : 'Saved.'),
  });
  const { typed } = form;
</script>

<StallForm
  {form}
  class="sheet grid items-start gap-3 sm:grid-cols-2"
  name="Points"
  look="btn-quiet"
>
  <div class="sm:col-span-2">
    <Tick label="Customers get points for what they buy" bind:checked={typed.isOn} />
  </div>
  <Field label="Points" bind:value={typed.points} inputmode="numeric" at="points" />
  <Field label="for each" bind:value={typed.per} inputmode="decimal" at="per" />
  <Field
    label="One point is worth"
    bind:value={typed.worth}
    inputmode="decimal"
    at="worth"
    help="It may be less than the smallest coin: 0.005"
  />
  <Field
    label="They last, in days"
    bind:value={typed.lasts}
    inputmode="numeric"
    at="lasts"
    help="After the last time that a customer got or spent some. Empty is for good"
  />
  <div class="sm:col-span-2">
    <Tick
      label="What points and rewards pay lowers the taxes of the sale"
      bind:checked={typed.lowersTax}
    />
    <p class="soft text-sm">
      Each tax by the share that they pay, as for a discount. Take it off where the law sees money
      in them: then the sale is taxed in full.
    </p>
  </div>
  <p class="soft text-sm sm:col-span-2">
    Spent by a way to pay that is <a class="plain" href="/ways">points of the customer</a>. Goods
    that bring none say so on their own page.
  </p>
</StallForm>
