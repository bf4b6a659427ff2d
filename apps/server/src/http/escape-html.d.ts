declare module 'escape-html' {
  export default function escapeHtml(text: string): string;
}
