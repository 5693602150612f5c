/** Text of XML with the five entities that XML itself has put back; parsers are told to leave all of them alone. */
export const xmlText = (text: string): string =>
  text
    .replace(/&lt;/g, '<')
    .replace(/&gt;/g, '>')
    .replace(/&quot;/g, '"')
    .replace(/&apos;/g, "'")
    .replace(/&amp;/g, '&');
