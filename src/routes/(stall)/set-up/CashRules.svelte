<script lang="ts">
  /** How drawers are counted. */
  import { setCashRules } from '$lib/core/drawer/cash-rules';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import Tick from '$lib/ui/forms/Tick.svelte';
  import { StallForm as Form } from '../forms/stall-form.svelte';
  import StallForm from '../forms/StallForm.svelte';
  import { useStall } from '../stall.svelte';

  const stall = useStall();
  const { business } = stall;
  const above = business.recountAbove;
  const most = business.refundMost;
  const form = new Form({
    about: 'cash rules',
    from: business.cashStamp,
    begin: {
      isBlind: business.isBlind,
      above: above === null ? '' : stall.money.plain(above),
      refundMost: most === null ? '' : stall.money.plain(most),
    },
    command: (typed) => () => setCashRules(newId, typed, business.currency),
    says: ({ field, typed }) => ({
      field,
      says: `“${typed}” is no amount; type one such as 5.00, or nothing.`,
    }),
    saved: () => 'Saved. Other devices follow when they next sync.',
  });
  const { typed } = form;
</script>

<section class="sheet grid content-start gap-3" aria-labelledby="cash-rules">
  <h2 id="cash-rules">Counting drawers</h2>
  <StallForm {form} look="btn-quiet" name="Counting drawers">
    <Tick
      label="Nobody sees what should be in a drawer until it has been counted"
      bind:checked={typed.isBlind}
    />
    <Field
      label="Count once more when it is off by more than"
      at="above"
      bind:value={typed.above}
      inputmode="decimal"
      help="Empty: one count will do, whatever it is off by."
    />
    <Field
      label="Given back by one person on a day without a sale, at most"
      at="refundMost"
      bind:value={typed.refundMost}
      inputmode="decimal"
      help="Empty: any amount. Owners may always."
    />
  </StallForm>
</section>
