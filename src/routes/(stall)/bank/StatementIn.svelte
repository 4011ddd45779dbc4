<script lang="ts">
  /** A file of the bank: what it says, what is new of it, and what speaks against it, before any of it is taken. */
  import { toast } from 'svelte-sonner';
  import type { OpenMoney } from '$lib/core/bank/open-money';
  import type { Statement, StatementLine } from '$lib/core/bank/statement';
  import { linesToTake, takeIn } from '$lib/core/bank/take-in';
  import { lookAt, setBankAccount, type StatementLook } from '$lib/core/bank/take-statement';
  import {
    guessColumns,
    readBankTable,
    type BankColumns,
    type BankTable,
  } from '$lib/core/formats/bank-table';
  import { readBankFile } from '$lib/device/bank-file/bank-file';
  import { newId } from '$lib/device/new-id';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { bankRefusalWords, openWords } from '$lib/ui/words/bank-words';
  import { faultWords } from '$lib/ui/words/fault-words';
  import RightButton from '../RightButton.svelte';
  import { useStall } from '../stall.svelte';
  import type { AskedBank } from './bank.svelte';
  import CsvColumns from './CsvColumns.svelte';

  interface Props {
    bank: AskedBank;
    eventName: (id: string) => string;
  }
  const { bank, eventName }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  const accounts = $derived((bank.now?.accounts ?? []).filter(({ isActive }) => isActive));
  /** Empty for whichever the file says it is of. */
  let chosenId = $state('');
  let says = $state('');
  let isReading = $state(false);
  let name = $state('');
  let format = $state('');
  let table = $state.raw<BankTable | null>(null);
  let columns = $state.raw<BankColumns | null>(null);
  let looks = $state.raw<readonly StatementLook[]>([]);
  /** Lines that are like what is there under another name; left out unless somebody says so. */
  let isAlikeTaken = $state(false);

  const chosen = $derived(accounts.find(({ id }) => id === chosenId) ?? null);
  const bad = $derived(
    table === null || columns === null
      ? []
      : readBankTable(table, columns, stall.business.currency).faults,
  );
  const faults = $derived(looks.flatMap((look) => look.faults));
  const isFitting = $derived(looks.length > 0 && faults.length === 0 && bad.length === 0);
  const taken = $derived(
    linesToTake({
      ...{ business: stall.business.id, looks, isAlikeTaken },
      money: bank.now?.money ?? [],
    }),
  );
  /** What a line is without a doubt: it is joined as it is taken in. */
  const certainOf = (look: StatementLook, { id }: StatementLine): OpenMoney | undefined =>
    taken.find(({ account, said }) => account === look.account?.id && said.id === id)?.is;

  function leave(): void {
    says = '';
    name = '';
    format = '';
    table = null;
    columns = null;
    looks = [];
    isAlikeTaken = false;
  }

  async function read(files: FileList | null): Promise<void> {
    const [file] = files ?? [];
    if (file === undefined) return;
    leave();
    isReading = true;
    try {
      const found = await readBankFile(file);
      name = file.name;
      format = found.format;
      if (found.format === 'CSV') {
        if (found.table.rows.length === 0)
          throw new Error(
            'There are no lines in this file: it is no statement as CSV, CAMT.053, MT940 or OFX.',
          );
        table = found.table;
        const own = accounts.length === 1 ? accounts[0] : chosen;
        if (own !== undefined && own !== null) chosenId = own.id;
        const kept = own?.columns ?? null;
        const isKnown = kept !== null && found.table.headings.includes(kept.day);
        await useColumns(isKnown ? kept : guessColumns(found.table));
      } else if (found.read.ok) await compare(found.read.statements);
      else says = found.read.says;
    } catch (error) {
      says = faultWords(error);
    } finally {
      isReading = false;
    }
  }

  async function useColumns(next: BankColumns): Promise<void> {
    columns = next;
    if (table === null) return;
    const { lines, opening, closing } = readBankTable(table, next, stall.business.currency);
    await compare([
      {
        ...{ account: '', currency: '', number: name, opening, closing },
        lines,
      },
    ]);
  }

  async function compare(statements: readonly Statement[]): Promise<void> {
    const days = statements.flatMap(({ lines }) => lines.map(({ day }) => day)).sort();
    const [from, to] = [days[0], days.at(-1)];
    const known = from === undefined || to === undefined ? [] : await bank.known(from, to);
    if (typeof known === 'string') {
      says = known;
      looks = [];
      return;
    }
    const context = {
      business: stall.business.id,
      currency: stall.business.currency,
      ...{ accounts, chosen, known },
    };
    looks = statements.map((statement) => lookAt(statement, context));
  }

  async function choose(id: string): Promise<void> {
    chosenId = id;
    if (table !== null && columns !== null) {
      const kept = chosen?.columns ?? null;
      await useColumns(kept !== null && table.headings.includes(kept.day) ? kept : columns);
    } else if (looks.length > 0) await compare(looks.map(({ statement }) => statement));
  }

  async function take(lentBy?: string): Promise<void> {
    const [lines, file] = [taken, name];
    says = await bank.write(
      () => ({ ok: true, drafts: takeIn(newId, lines, file, stall.business.currency) }),
      bankRefusalWords,
      lentBy,
    );
    if (says !== '') return;
    leave();
    const many = lines.length;
    const joined = lines.filter((line) => line.is !== undefined).length;
    toast(
      `${many} ${many === 1 ? 'line is' : 'lines are'} taken in; ${joined} ${joined === 1 ? 'has' : 'have'} found what they are.`,
    );
  }

  /** Kept for the next file of the account. */
  async function keepColumns(lentBy?: string): Promise<void> {
    const [of, next] = [chosen, columns];
    if (of === null || next === null) return;
    says = await bank.write(
      () =>
        setBankAccount(newId, {
          ...{ id: of.id, typedName: of.name, typedNumber: of.number, columns: next },
          ...{ isActive: true, accounts },
        }),
      bankRefusalWords,
      lentBy,
    );
  }
  const isSame = (kept: BankColumns | null, now: BankColumns): boolean =>
    kept !== null &&
    (Object.keys(now) as (keyof BankColumns)[]).every((field) => kept[field] === now[field]);
  const isNewColumns = $derived(
    chosen !== null && columns !== null && !isSame(chosen.columns, columns),
  );
</script>

<section class="sheet grid gap-3" aria-labelledby="statement-in">
  <h2 id="statement-in">Take in a statement</h2>
  <p class="soft text-sm">
    CAMT.053, MT940, OFX or CSV, as the bank offers it. What it would do is shown first; taken in
    twice is once.
  </p>
  {#if accounts.length > 1 || table !== null}
    <label class="grid gap-1 font-[560]">
      Account
      <select
        class="select min-h-12 w-full"
        value={chosenId}
        onchange={(event) => choose(event.currentTarget.value)}
      >
        <option value="">the one that the file names</option>
        {#each accounts as account (account.id)}
          <option value={account.id}>{account.name}</option>
        {/each}
      </select>
    </label>
  {/if}
  <label class="grid gap-1 text-sm font-[560]">
    File
    <input
      type="file"
      class="file-input min-h-12 w-full"
      accept=".xml,.sta,.mt940,.940,.txt,.ofx,.qfx,.csv,text/csv,application/xml,text/xml"
      disabled={isReading || bank.isOld}
      onchange={(event) => {
        void read(event.currentTarget.files);
        event.currentTarget.value = '';
      }}
    />
  </label>
  {#if isReading}<p class="soft" role="status">Reading …</p>{/if}
  {#if says !== ''}<p class="text-error" role="alert">{says}</p>{/if}
  {#if table !== null && columns !== null}
    <CsvColumns {table} {columns} onChange={useColumns} />
  {/if}
  {#if bad.length > 0}
    <div class="text-error text-sm" role="alert" data-testid="bank-bad">
      <p>
        {bad.length}
        {bad.length === 1 ? 'line' : 'lines'} of {table?.rows.length ?? 0} cannot be read; nothing is
        taken until all can.
      </p>
      <ul>
        {#each bad.slice(0, 8) as { at, says: why } (at)}<li>Line {at}: {why}</li>{/each}
        {#if bad.length > 8}<li>and {bad.length - 8} more.</li>{/if}
      </ul>
    </div>
  {/if}
  {#if looks.length > 0}
    <div class="border-base-300 grid gap-3 rounded-xl border-2 p-3" data-testid="bank-file">
      <p><b class="break-words">{name}</b> · {format}</p>
      {#each looks as look, at (at)}
        <div class="grid gap-2">
          <p>
            {look.account?.name ?? (look.statement.account || 'No account')}{look.statement
              .number === '' || table !== null
              ? ''
              : ` · ${look.statement.number}`}: {look.fresh.length}
            {look.fresh.length === 1 ? 'line is' : 'lines are'} new{look.known === 0
              ? ''
              : `, ${look.known} there already`}.
            {#if look.statement.opening !== null && look.statement.closing !== null}
              <span class="soft block text-sm"
                >From {money.figure(look.statement.opening)} to {money.figure(
                  look.statement.closing,
                )}</span
              >
            {/if}
          </p>
          {#if look.faults.length > 0}
            <ul class="text-error text-sm" role="alert">
              {#each look.faults as fault (fault)}<li>{fault}</li>{/each}
            </ul>
          {/if}
          {#if look.fresh.length > 0}
            <table class="rows text-sm" data-testid="bank-preview">
              <tbody>
                {#each look.fresh.slice(0, 12) as line (line.id)}
                  <tr>
                    <td>{shortDayWords(line.day, stall.business.locale)}</td>
                    <td class="min-w-0 !text-left break-words"
                      >{[line.other, line.reference, line.text]
                        .filter((each) => each !== '')
                        .join(' · ')}
                      {#if certainOf(look, line) !== undefined}
                        <span class="text-secondary block font-[600]"
                          >is {openWords(certainOf(look, line)!, eventName)}</span
                        >
                      {/if}</td
                    >
                    <td class="figure">{money.figure(line.amount)}</td>
                  </tr>
                {/each}
                {#if look.fresh.length > 12}
                  <tr><td colspan="3" class="soft">and {look.fresh.length - 12} more</td></tr>
                {/if}
              </tbody>
            </table>
          {/if}
          {#if look.alike.length > 0}
            <p class="text-sm">
              {look.alike.length} of them {look.alike.length === 1 ? 'is' : 'are'} of a day and amount
              that
              {look.alike[0]?.source ?? 'another file'} brought: the same lines in another form, most
              likely.
            </p>
          {/if}
        </div>
      {/each}
      {#if looks.some(({ alike }) => alike.length > 0)}
        <label class="flex min-h-12 items-center gap-3 text-sm">
          <input type="checkbox" class="checkbox size-6 !rounded-md" bind:checked={isAlikeTaken} />
          They are others: take them in as well
        </label>
      {/if}
      <div class="flex flex-wrap gap-2">
        {#if isFitting && isNewColumns}
          <RightButton
            right="set-up"
            label="Keep these columns for {chosen?.name ?? ''}"
            look="btn-quiet"
            isBusy={bank.isOld}
            onGo={keepColumns}
          />
        {/if}
        {#if isFitting && taken.length > 0}
          <RightButton
            right="event.settle"
            label="Take in {taken.length} {taken.length === 1 ? 'line' : 'lines'}"
            isBusy={bank.isOld}
            onGo={take}
          />
        {/if}
        <button type="button" class="btn btn-quiet" onclick={leave}>Leave it</button>
      </div>
    </div>
  {/if}
</section>
