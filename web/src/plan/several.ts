/** Rings as they are typed, a line each: `US 7, horn` is a size and whose it is. */
export const ringsOf = (text: string) =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
    .map((line) => {
      // A comma within a number (54,4 mm) parts nothing: the name comes after a comma and a blank, or a comma and a letter.
      const [, size = line, whose = ''] = /^(.*?),(?!\d)\s*(.*)$/.exec(line) ?? [];
      return { size: size.trim(), for_whom: whose.trim() };
    });
