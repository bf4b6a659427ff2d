/**
 * Before the application is there: its light and height of text as chosen on this device, and a tap on a place is kept in the address,
 * at which the application then opens.
 */
(function () {
  const html = document.documentElement;
  try {
    const chosen = JSON.parse(localStorage.getItem('zt:settings') || '{}');
    if (chosen.theme === 'day' || chosen.theme === 'night') html.setAttribute('data-light', chosen.theme);
    const factor = { larger: 1.25, largest: 1.5 }[chosen.text];
    if (factor) html.style.setProperty('--text', factor);
  } catch {
    // Nothing is kept on this device, or it may not be read: as the device has it.
  }
  let tapped = false;
  document.addEventListener('click', function (event) {
    const link = event.target.closest && event.target.closest('.first a');
    if (!link || event.metaKey || event.ctrlKey || event.shiftKey || event.button) return;
    event.preventDefault();
    if (tapped) history.replaceState(null, '', link.href);
    else history.pushState(null, '', link.href);
    tapped = true;
    // The application may have read the address already, and not have drawn yet.
    window.firstTap = link.getAttribute('href');
    document.querySelectorAll('.first [aria-busy]').forEach(function (other) {
      other.removeAttribute('aria-busy');
    });
    link.setAttribute('aria-busy', 'true');
    const said = document.querySelector('.first-said');
    said.textContent = 'Opening …';
    said.hidden = false;
  });
})();
