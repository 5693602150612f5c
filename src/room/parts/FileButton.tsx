'use client';
import { Button, type ButtonProps } from 'antd';
import { useRef } from 'react';

/** A button that asks for a file and hands it over; the same file may be chosen again. */
export function FileButton({
  accept,
  label,
  onFile,
  ...button
}: Omit<ButtonProps, 'onClick'> & {
  /** Endings, `.json,.txt`. */
  accept: string;
  /** What the field of the file is called to those who do not see it. */
  label: string;
  onFile: (file: File) => void;
}) {
  const picker = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={picker}
        type="file"
        accept={accept}
        className="visually-hidden"
        aria-label={label}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) onFile(file);
          event.target.value = '';
        }}
      />
      <Button {...button} onClick={() => picker.current?.click()} />
    </>
  );
}
