/** Prints a Markdown text on paper, without the screen around it. Scripts cannot run in the frame. */
export async function printDocument(title: string, markdown: string): Promise<void> {
  const { marked } = await import('marked');
  const html = await marked.parse(markdown);
  const frame = document.createElement('iframe');
  frame.setAttribute('sandbox', 'allow-modals allow-same-origin');
  frame.title = title;
  frame.style.cssText = 'position:fixed;width:0;height:0;border:0';
  frame.srcdoc = `<!doctype html><meta charset="utf-8"><title>${title.replace(/[<&]/g, '')}</title><style>body{font:11pt/1.4 sans-serif;margin:18mm}h1{font-size:16pt}h2{font-size:12pt;margin:1em 0 .3em}</style>${html}`;
  frame.onload = () => {
    frame.contentWindow?.addEventListener('afterprint', () => frame.remove());
    frame.contentWindow?.print();
  };
  document.body.append(frame);
}
