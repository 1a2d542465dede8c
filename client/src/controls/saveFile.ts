/** Hands a file to whoever holds the device; it goes nowhere else. */
export function saveFile(name: string, content: Blob) {
  const address = URL.createObjectURL(content);
  const link = document.createElement("a");
  link.href = address;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(address), 10_000);
}

/** The name a server gives a file (RFC 6266, with the letters of RFC 8187). */
export function nameIn(headers: Headers) {
  const told = /filename\*=UTF-8''([^;]+)/i.exec(headers.get("content-disposition") ?? "")?.[1];
  return told ? decodeURIComponent(told) : "";
}
