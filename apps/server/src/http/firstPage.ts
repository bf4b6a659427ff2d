import { cardWords, filamentColour, FIRST_ORDERS, orderPath, PLACES } from '@zealous/contracts/cards';
import type { OrderSummary, Paged } from '@zealous/contracts/messages';
import { formatDistanceStrict } from 'date-fns/formatDistanceStrict';
import escapeHtml from 'escape-html';

function card(order: OrderSummary, now: number): string {
  const words = cardWords(order, formatDistanceStrict(new Date(order.openedAt), now));
  const said = (text: string): string => escapeHtml(text);
  return [
    `<li><a class="first-card" href="${said(orderPath(order))}" aria-label="${said(words.label)}">`,
    `<i style="background:${filamentColour(order.colour)}"></i><span>`,
    `<span class="first-row"><b>${said(words.name)}</b><small>${said(words.state)}</small></span>`,
    `<span><small>${said(words.number)}</small></span>`,
    words.lead === undefined ? '' : `<span class="first-lead">${said(words.lead)}</span>`,
    `<span><em>Next: </em>${said(words.next)}</span>`,
    '</span></a></li>',
  ].join('');
}

/**
 * The bench as the server knows it, drawn into the page that the build prepared for it: read, and a tap taken, while the
 * application is still on its way over a slow line.
 *
 * @param template the build's `first.html`
 */
export function firstPage(template: string, orders: Paged<OrderSummary>, now: number): string {
  const list =
    orders.items.length > 0
      ? `<ul>${orders.items.map((order) => card(order, now)).join('')}</ul>`
      : '<p>The bench is empty</p>';
  const drawn = [
    '<div class="first"><header><h1>Bench</h1></header>',
    `<main aria-label="Bench"><p class="first-said" role="status" hidden></p>${list}</main>`,
    '<footer><a class="first-take" href="/take-in">Take in a machine</a></footer>',
    `<nav aria-label="Places">${PLACES.map(({ href, label }, i) => `<a href="${href}"${i === 0 ? ' aria-current="page"' : ''}>${label}</a>`).join('')}</nav>`,
    '</div>',
  ].join('');
  // In a script's text only "<" could end it.
  const data = JSON.stringify(orders).replaceAll('<', '\\u003c');
  return template
    .replace('<!--first-->', () => drawn)
    .replace('<!--first-data-->', () => `<script type="application/json" id="${FIRST_ORDERS}">${data}</script>`);
}
