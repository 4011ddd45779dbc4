/** What an owner's browser and the server say to each other; both sides check with these. */
import { z } from 'zod';
import { uuid } from '../daybook/entry';

export const emailSchema = z.email('an e-mail address such as name@stall.example').max(254);
const password = z.string().min(1).max(1000);
const deviceToken = z.string().regex(/^[0-9a-f]{64}$/, '32 random bytes in hex');

export const signUpSchema = z.strictObject({
  email: emailSchema,
  password,
  /** What the business and its owner are called; they are refused as passwords. */
  business: z.string().trim().min(1).max(80),
  device: uuid,
  token: deviceToken,
  /** 32 random bytes of this sign-up alone: what it proves itself by if it has to be asked again. */
  key: deviceToken,
});

export const signInSchema = z.strictObject({ email: z.string().min(1).max(254), password });
export const passwordChangeSchema = z.strictObject({
  current: password,
  next: password,
  /** Somebody else may have added one. */
  removePasskeys: z.boolean().default(false),
});
export const forgotSchema = z.strictObject({ email: z.string().min(3).max(254) });
export const resetSchema = z.strictObject({
  token: deviceToken,
  password,
  removePasskeys: z.boolean().default(false),
});
export const verifySchema = z.strictObject({ token: deviceToken });
export const takeInSchema = z.strictObject({ upTo: z.int().min(1), take: z.boolean() });

export const proofSchema = z.strictObject({ password });

/** A passkey as the browser hands it over; the parts are checked when it is verified. */
const base64url = z
  .string()
  .max(20_000)
  .regex(/^[\w-]*$/, 'base64url');
const extensionResults = z.record(z.string().max(80), z.unknown());
const credential = {
  id: base64url.max(1364),
  rawId: base64url.max(1364),
  type: z.literal('public-key'),
  authenticatorAttachment: z.enum(['platform', 'cross-platform']).optional(),
  clientExtensionResults: extensionResults,
};
export const passkeyMadeSchema = z.strictObject({
  name: z.string().trim().min(1).max(80),
  passkey: z.strictObject({
    ...credential,
    response: z.strictObject({
      clientDataJSON: base64url,
      attestationObject: base64url,
      authenticatorData: base64url.optional(),
      transports: z.array(z.string().max(20)).max(10).optional(),
      publicKeyAlgorithm: z.int().optional(),
      publicKey: base64url.optional(),
    }),
  }),
});
export const passkeySignedSchema = z.strictObject({
  ...credential,
  response: z.strictObject({
    clientDataJSON: base64url,
    authenticatorData: base64url,
    signature: base64url,
    userHandle: base64url.optional(),
  }),
});
/** What the browser's own part for passkeys is given; it checks that itself. */
export const challengeSchema = z.looseObject({ challenge: z.string() });

export const doneSchema = z.object({ done: z.literal(true) });

/** A password was set; so many passkeys still open the account. */
export const passwordSetSchema = doneSchema.extend({ passkeys: z.int() });

export const accountSchema = z.object({
  email: z.string(),
  /** Whether the address was shown to be the owner's; receipts are only sent once it was. */
  isVerified: z.boolean(),
  /** The session that asks. */
  session: uuid,
  sessions: z.array(z.object({ id: uuid, made: z.string(), seen: z.string(), agent: z.string() })),
  passkeys: z.array(
    z.object({ id: uuid, name: z.string(), made: z.string(), seen: z.string().nullable() }),
  ),
});
export type Account = z.infer<typeof accountSchema>;

export const devicesSchema = z.object({
  devices: z.array(
    z.object({
      device: uuid,
      number: z.int(),
      name: z.string(),
      seq: z.int(),
      shutOutAt: z.string().nullable(),
      copySeenAt: z.string().nullable(),
      unsent: z.int(),
    }),
  ),
});
export type SeenDevice = z.infer<typeof devicesSchema>['devices'][number];

export const codeSchema = z.object({ code: z.string(), expires: z.string() });
export const unsentSchema = z.object({
  entries: z.array(
    z.object({
      seq: z.int(),
      at: z.string(),
      kind: z.string(),
      by: uuid.nullable(),
      about: z.string(),
    }),
  ),
});

/** The address that calendars follow: since when there is one, and, once, what it is. */
export const calendarSchema = z.strictObject({ made: z.string().nullable() });
export const calendarGivenSchema = z.strictObject({ address: z.url() });
