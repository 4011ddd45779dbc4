/** What is wrong with what stands in a form: said beside its field, or else at the foot of the form. */
import { createContext } from 'svelte';

export interface Fault {
  /** Names the field; one that no field has is said at the foot. */
  readonly field: string;
  readonly says: string;
}

export class Faults {
  #now = $state.raw<Fault | null>(null);
  /** Fields that are on the screen and say what is wrong with them themselves. */
  readonly #beside = new Set<string>();

  set now(fault: Fault | null) {
    this.#now = fault;
  }

  at(field: string): string {
    return this.#now?.field === field ? this.#now.says : '';
  }

  /** What no field says. */
  get elsewhere(): string {
    return this.#now === null || this.#beside.has(this.#now.field) ? '' : this.#now.says;
  }

  /** A field says it itself. @returns What ends that. */
  besides(field: string): () => void {
    this.#beside.add(field);
    return () => void this.#beside.delete(field);
  }
}

const [use, set] = createContext<Faults>();

export const setFaults = set;

/** The form's that a field stands in; those of a form of its own where it stands in none. */
export function useFaults(): Faults {
  try {
    return use();
  } catch {
    return new Faults();
  }
}
