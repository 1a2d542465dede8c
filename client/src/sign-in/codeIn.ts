/** The code in an address as /invitation/ABCDE; empty where it is still to be typed, null at any other address. */
export function codeIn(path: string): string | null {
  const [, place, code = ""] = path.split("/");
  if (place !== "invitation") return null;
  try {
    return decodeURIComponent(code);
  } catch {
    // Mistyped: the server says so of a code that there is not.
    return code;
  }
}
