<script lang="ts">
  interface Props {
    label: string;
    checked: boolean;
    disabled?: boolean;
  }
  let { label, checked = $bindable(), disabled = false }: Props = $props();
</script>

<label class="flex min-h-12 items-center gap-3">
  <input type="checkbox" class="checkbox size-6 !rounded-md" bind:checked {disabled} />
  {label}
</label>
