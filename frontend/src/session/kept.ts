let account = "";

/** Whose browser this is just now: what is kept in it is kept for this account, and shown to no other. */
export function setAccount(next: string | null): void {
  account = next ?? "";
}

/** The name under which something of the signed-in account is kept in this browser. */
export const keptAs = (name: string) => `rillstep.${account}.${name}`;
