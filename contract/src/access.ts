import { z } from 'zod';

const deviceName = z.string().trim().min(1, 'give the device a name').max(40);

/** How a device asks to be let in. */
export const enterSchema = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('passPhrase'), passPhrase: z.string().max(200), name: deviceName }),
  z.strictObject({
    by: z.literal('code'),
    code: z.string().regex(/^\d{6}$/, 'a code has six digits'),
    name: deviceName,
  }),
  z.strictObject({ by: z.literal('link'), link: z.string().max(200) }),
]);
export type Enter = z.infer<typeof enterSchema>;

/** Where a device stands: on this machine nothing is asked. */
export const standingSchema = z.object({
  kind: z.enum(['local', 'full', 'view', 'outside']),
  name: z.string().nullable(),
  /** Whether others on the network can reach this server. */
  isOnNetwork: z.boolean(),
});

export const pairingSchema = z.object({ code: z.string(), seconds: z.number() });
export type Pairing = z.infer<typeof pairingSchema>;

export const newLinkSchema = z.strictObject({ name: deviceName });
export const linkSchema = z.object({ link: z.string() });

export const accessDeviceSchema = z.object({
  id: z.string(),
  name: z.string(),
  access: z.enum(['full', 'view', 'link']),
  /** The one that asks. */
  isOwn: z.boolean(),
  addedAt: z.string(),
  seenAt: z.string(),
});
export type AccessDevice = z.infer<typeof accessDeviceSchema>;

export const auditLineSchema = z.object({
  at: z.string(),
  what: z.string(),
  device: z.string().nullable(),
  address: z.string(),
});
export type AuditLine = z.infer<typeof auditLineSchema>;
