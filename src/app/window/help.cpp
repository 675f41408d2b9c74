#include "window/help.h"

namespace talvik::app {

QString helpText() {
    return QStringLiteral(R"(<h2>How to work with Talvik</h2>
<p>Three pictures always speak of the same selection: the <b>plan</b> (where), the <b>long section</b> (how much) and the <b>margin</b> (why, in numbers).
There is no run button: every edit is answered at once, and Ctrl+Z takes any of them back, without limit.</p>
<h3>Places of work</h3>
<p>Keys 1 to 7 (Ctrl+1 to Ctrl+7 from inside a field): Basis, Layout, Actions, Strips, Checks, Bars, Issue. A number on a red ground says what is still open there.</p>
<h3>Selecting</h3>
<p>Click the slab for its strip, again for a span; click an axis for a support. Left and Right walk supports and spans, Enter opens the worst check, Esc steps back;
with nothing selected the margin shows the state of the whole project. Ctrl+F finds a mark, a support, a span, a check or a command. F6 goes from part to part.</p>
<h3>Editing</h3>
<p>Place 2 takes spans as a list, such as <tt>3@5.0 4.2</tt>; on plan, double-click a span's figure. PageUp and PageDown make the slab thicker and thinner.
Fields take arithmetic and units: <tt>1.1*500/280</tt>, <tt>8 in</tt>.</p>
<p>In the long section drag the ring at a bar's end (with Shift in larger steps), or double-click a call-out and write <tt>H12 @ 150</tt>. With a run selected (Up, Down):
+ and − change the spacing, [ and ] the bar, H hooks its end (Shift+H its start), Alt+arrows move its start, Ctrl+arrows its end, Delete removes it.
What you edit is fixed and marked by a dot; Ctrl+B proposes all other bars anew. Ctrl+T looks for the least thickness with bars in which no check is over.</p>
<h3>Reading a check</h3>
<p>The bar of a check is ink up to the notch at its limit, hatched past it, with the ratio beside. A dashed frame means not checked, a dash not applicable; both say why.
Click a check for its working: formula, numbers put in, result, clause. Notes below it state assumptions and readings of the clause.</p>
<p>Where something is over, the margin lists what would make it pass, each line tried out on a copy of the project: the largest
ratio after it, and its price in steel and concrete. A click adopts it; Ctrl+F finds it by keyboard; Ctrl+Z takes it back.</p>
<h3>Long section</h3>
<p>Moments: full line, design moments (hogging up); dotted line, moved outwards for curtailment; broken line, resistance of the bars with their anchorage. Hatching shows where the moved line is over the resistance.</p>
<h3>Floors</h3>
<p>A floor is a plate of any outline on columns, walls, beams, piles or ground, described in the project file. It is analysed in the background after every edit; an answer that is older than the project is pale.
Above the plan choose a field and a combination, or the largest and smallest values of all. Lines of equal value carry their figure; below zero they are broken, zero is heavy. The wheel zooms, dragging or the arrow keys move the plan, F or Home fits it; the value under the pointer stands below.
Beside the plan: loads against reactions of every case, extremes with their places, support forces, second opinions, what to look at and what is taken for granted. <i>How far from converged?</i> analyses once more on half the size.</p>
<h3>What this version does not do</h3>
<p>It designs one-way slabs over parallel supports under loads spread over their area. Floors are analysed, not yet drawn in this window, divided into strips, checked or given bars. Punching, pad footings and pile caps are not designed yet.</p>)");
}

}  // namespace talvik::app
