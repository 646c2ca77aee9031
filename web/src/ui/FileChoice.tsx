import type { Ref } from 'react';

interface Props {
  /** What a button clicks to open it. */
  ref: Ref<HTMLInputElement>;
  accept: string;
  testId: string;
  onChoose: (file: File) => void;
}

/** The browser's own choice of a file, out of sight; the same file can be chosen twice. */
export function FileChoice({ ref, accept, testId, onChoose }: Props) {
  return (
    <input
      ref={ref}
      type="file"
      accept={accept}
      hidden
      data-testid={testId}
      onChange={(event) => {
        const [chosen] = event.target.files ?? [];
        if (chosen) onChoose(chosen);
        event.target.value = '';
      }}
    />
  );
}
