/** How many users each thing has that is open once for all of them. */
export class Users {
  private readonly counts = new Map<string, number>();

  /** One more. @returns whether it is the first */
  take(id: string): boolean {
    const now = (this.counts.get(id) ?? 0) + 1;
    this.counts.set(id, now);
    return now === 1;
  }
  /** One less. @returns whether nobody is left, also when nobody was there */
  leave(id: string): boolean {
    const now = (this.counts.get(id) ?? 1) - 1;
    if (now > 0) this.counts.set(id, now);
    else this.counts.delete(id);
    return now <= 0;
  }
  has(id: string): boolean {
    return this.counts.has(id);
  }
}
