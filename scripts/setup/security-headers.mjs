/** What every answer carries, whoever made it. The policy for scripts stands in each page, with hashes. */
export const HEADERS = {
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'no-referrer',
  'x-frame-options': 'DENY',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  'permissions-policy': 'geolocation=(), microphone=(), payment=(), usb=()',
  'content-security-policy': "frame-ancestors 'none'",
};

/** A browser that has once been here over TLS comes no other way again. */
export const headersWithTls = { ...HEADERS, 'strict-transport-security': 'max-age=31536000' };
