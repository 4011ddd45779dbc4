/** What RFC 5545 (section 3.3.10) calls recurrence rules. */
import * as asIs from 'rrule';

/** The package is one thing to bundlers and another to Node, which has all of it in `default`. */
const rrule = 'RRule' in asIs ? asIs : (asIs as { readonly default: typeof asIs }).default;

export const { RRule, Weekday } = rrule;
