/** The nonce of this page, without which its security policy lets no style in. */
export function nonce(): string {
  const meta = document.querySelector<HTMLMetaElement>("meta[property='csp-nonce']");
  return meta?.nonce ?? "";
}
