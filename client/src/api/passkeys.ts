/**
 * Passkeys in this browser (W3C, Web Authentication, level 3). Questions and answers go over the wire as the JSON that the
 * standard defines.
 */
export const canPasskeys = () =>
  typeof PublicKeyCredential !== "undefined" && "parseCreationOptionsFromJSON" in PublicKeyCredential;

/** Has the browser make a passkey; null if the person would rather not. */
export async function makePasskey(options: string): Promise<string | null> {
  const asked = PublicKeyCredential.parseCreationOptionsFromJSON(
    JSON.parse(options) as PublicKeyCredentialCreationOptionsJSON,
  );
  return answer(() => navigator.credentials.create({ publicKey: asked }));
}

/** Has the browser show a passkey; null if the person would rather not. */
export async function showPasskey(options: string): Promise<string | null> {
  const asked = PublicKeyCredential.parseRequestOptionsFromJSON(
    JSON.parse(options) as PublicKeyCredentialRequestOptionsJSON,
  );
  return answer(() => navigator.credentials.get({ publicKey: asked }));
}

async function answer(ask: () => Promise<Credential | null>): Promise<string | null> {
  try {
    const given = await ask();
    return given === null ? null : JSON.stringify((given as PublicKeyCredential).toJSON());
  } catch (e) {
    // The browser says so alike whether somebody cancelled, waited too long or has no such key.
    if (e instanceof DOMException && (e.name === "NotAllowedError" || e.name === "InvalidStateError"))
      return null;
    throw e;
  }
}
