/** The front of the simulated machine: its display, and a person's hands that put film in and take it out. */
export const PANEL_PAGE = `<!doctype html>
<html lang="en"><meta charset="utf-8"><title>Cutter panel</title>
<style>
  body { font: 16px/1.4 system-ui, sans-serif; background: #26222b; color: #f2ece0; margin: 0; display: grid; place-items: center; min-height: 100vh; }
  main { width: 26rem; background: #38323f; border: 2px solid #15121a; border-radius: 14px; padding: 1.4rem; }
  output { display: block; font: 20px/1.6 ui-monospace, monospace; background: #101a12; color: #a5e08c; padding: .6rem .9rem; border-radius: 6px; min-height: 4.8rem; white-space: pre; }
  form { display: grid; grid-template-columns: 1fr 1fr; gap: .8rem; margin-top: 1.2rem; }
  label { display: grid; gap: .2rem; font-size: 14px; }
  input, select { font: inherit; padding: .5rem; border-radius: 6px; border: 1px solid #15121a; }
  button { font: inherit; min-height: 44px; border-radius: 8px; border: 1px solid #15121a; background: #e9e0cd; color: #201b26; cursor: pointer; }
  [hidden] { display: none !important; }
</style>
<main>
  <output id="display" aria-live="polite"></output>
  <form id="film">
    <label>Film's width, mm <input name="width" type="number" value="610" min="50" max="3000" required></label>
    <label>Its length, m <input name="length" type="number" value="22" min="0.1" max="100" step="0.1" required></label>
    <button>Load this film</button>
    <button type="button" id="unload">Take the film out</button>
    <button type="button" id="off">Switch off and on</button>
    <button type="button" id="cable">Pull the cable</button>
    <button type="button" id="slip">Let the film slip</button>
    <button type="button" id="pen">Put the pen in</button>
    <button type="button" id="knife">Put the knife in</button>
    <label id="prints" hidden>Print in the tray <select name="print"></select></label>
    <label id="aslant" hidden>Lies aslant, ° <input name="turn" type="number" value="0" min="-180" max="180" step="0.1"></label>
    <button type="button" id="lay" hidden>Load this print</button>
    <label id="knob" hidden>Force knob, g <input name="force" type="number" min="0" max="1000" step="5"></label>
  </form>
</main>
<script>
  const post = (path, body) => fetch(path, { method: 'POST', body: body && JSON.stringify(body) });
  film.onsubmit = (event) => {
    event.preventDefault();
    post('/load', { name: 'film', width: Number(film.width.value), length: Number(film.length.value) * 1000 });
  };
  unload.onclick = () => post('/unload');
  off.onclick = () => post('/switch-off');
  cable.onclick = () => post('/pull-cable');
  slip.onclick = () => post('/slip', { x: 6, y: 2, turn: 0.4 });
  pen.onclick = () => post('/set-up', { holder: { kind: 'pen' } });
  knife.onclick = () => post('/set-up', { holder: { kind: 'knife' } });
  film.force.onchange = () => post('/knob', { force: Number(film.force.value) });
  lay.onclick = () => post('/load-print', { print: Number(film.print.value), turn: Number(film.turn.value) });
  setInterval(async () => {
    const tray = await (await fetch('/tray')).json();
    prints.hidden = aslant.hidden = lay.hidden = tray.length === 0;
    const newest = tray.reverse().map(({ id, name }) => new Option(name, id));
    if (film.print.options[0]?.value === newest[0]?.value || document.activeElement === film.print) return;
    film.print.replaceChildren(...newest);
  }, 1000);
  setInterval(async () => {
    const s = await (await fetch('/status')).json();
    document.title = s.name + ', front panel';
    knob.hidden = !s.knob;
    if (s.knob && document.activeElement !== film.force) film.force.value = s.force;
    display.textContent = s.name.toUpperCase() + '  ' + s.display + '\\nx ' + s.x.toFixed(1) + '  y ' + s.y.toFixed(1) + '  ' + (s.down ? 'DOWN' : 'UP') + '\\nTOOL ' + s.tool + '  FORCE ' + s.force;
  }, 250);
</script>
</html>`;
