/** Ids that nobody else makes. A phone in the workshop's network has no secure context, so no ``crypto.randomUUID`` either. */
export function newUuid(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  return Array.from(bytes, (b) => b.toString(16).padStart(2, "0")).join("");
}
