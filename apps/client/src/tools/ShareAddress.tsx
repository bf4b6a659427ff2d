import { ShareButton } from '../ui/ShareButton';

/** Hands the page with its figures to somebody. */
export const ShareAddress = () => (
  <ShareButton
    label="Send these figures to somebody"
    what={() => ({ title: document.title, url: window.location.href })}
    copied="The address of this page is copied: it brings these figures."
  />
);
