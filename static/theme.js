// Before anything is painted: the theme and the hand that this device was set to.
(() => {
  try {
    const theme = localStorage.getItem('theme');
    if (theme) document.documentElement.dataset.theme = theme;
    const hand = localStorage.getItem('hand');
    if (hand) document.documentElement.dataset.hand = hand;
  } catch {
    // Without storage the daylight theme and the right hand will do.
  }
})();
