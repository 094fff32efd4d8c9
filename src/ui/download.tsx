import type { ComponentProps } from 'react';

/** A file to be taken away, offered like a button. */
export const Download = (props: ComponentProps<'a'> & { readonly download: string | true }) => (
  <a
    className="inline-flex items-center whitespace-nowrap rounded-[3px] border border-iron bg-raised px-2.5 py-1 leading-5 hover:border-copper hover:text-copper"
    {...props}
  />
);
