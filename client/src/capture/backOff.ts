/** The first try again comes soon, each later one after twice as long, so that a server that comes back is not run over. */
const firstMs = 2000;
const mostMs = 30_000;

/** When what could not be sent is tried again. */
export class BackOff {
  private tries = 0;

  /** Milliseconds until the next try. */
  next() {
    const wait = Math.min(firstMs * 2 ** this.tries, mostMs);
    this.tries += 1;
    // Tablets that lost the server together do not come back all at once.
    return wait * (0.75 + 0.25 * Math.random());
  }

  /** It went through. */
  over() {
    this.tries = 0;
  }
}
