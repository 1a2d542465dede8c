/** Hands a file to whoever holds the phone; it goes nowhere else. */
export function saveFile(name: string, type: string, text: string) {
  const address = URL.createObjectURL(new Blob([text], { type }));
  const link = document.createElement("a");
  link.href = address;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(address), 10_000);
}
