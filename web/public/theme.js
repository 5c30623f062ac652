// Runs before the first paint, so that a dark bench stays dark.
(function () {
  var kept = null;
  try {
    kept = localStorage.getItem('ruddy-theme');
  } catch {
    // private windows may keep nothing
  }
  var dark = kept ? kept === 'dark' : window.matchMedia('(prefers-color-scheme: dark)').matches;
  document.documentElement.classList.toggle('dark', dark);
})();
