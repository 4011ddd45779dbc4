/** Seals something for whoever has the private key (RSA-OAEP, SHA-256). @returns Base64. */
export async function seal(key: JsonWebKey, what: object): Promise<string> {
  const algorithm = { name: 'RSA-OAEP', hash: 'SHA-256' };
  const publicKey = await crypto.subtle.importKey('jwk', key, algorithm, false, ['encrypt']);
  const bytes = new TextEncoder().encode(JSON.stringify(what));
  const sealed = new Uint8Array(await crypto.subtle.encrypt(algorithm, publicKey, bytes));
  return btoa(String.fromCharCode(...sealed));
}
