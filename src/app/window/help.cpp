#include "window/help.h"

namespace talvik::app {

QString helpText() {
    return QStringLiteral(R"(<h2>How to work with Talvik</h2>
<p>Three pictures always speak of the same selection: the <b>plan</b> (where), the <b>long section</b> (how much) and the <b>margin</b> (why, in numbers).
There is no run button: every edit is answered at once, and Ctrl+Z takes any of them back, without limit.</p>
<h3>Places of work</h3>
<p>Keys 1 to 7: Basis, Layout, Actions, Strips, Checks, Bars, Issue. While you draw or type, digits are figures: then Ctrl+1 to Ctrl+7, as the bar of places shows. A number on a red ground says what is still open there.</p>
<h3>The window</h3>
<p>Left the tray: what you say, with the tools of the place. In the middle the plan, below it the long section or a table: panels, load cases, combinations, supports, analysis; F4 goes between both. Right the margin: what it answers. In Layout and Actions it tells what is loose, unloaded or taken for granted, else the checks of what is selected. F7, F8 and F9 fold tray, lower part and margin away and back. Messages float over a corner of the plan and go by themselves; Esc puts them away.</p>
<h3>Elements</h3>
<p>Click the name of the element in the header, or Ctrl+G: all slabs, floors and sets of bases with their worst ratio and what is over, to be found, opened, made, renamed, copied (a floor as the next storey with loads of its own), put in order and removed. Ctrl+PageDown and Ctrl+PageUp walk them.</p>
<h3>Bases</h3>
<p>Ctrl+K adds a set of bases, pad footings or pile caps; Ctrl+Shift+K reads columns with their loads from a table (CSV): a row per column and case, with units in the heads. Each column gets a base; what nobody fixes is solved at every change: size, depth, number of piles, bars. Place 2 says what they stand on, and pins what is fixed of the base in hand; in the register a figure in a cell pins, a dash frees, for all rows that are selected; <i>One base</i> puts the columns of several rows on one. <i>Most types</i> groups bases at least cost. Arrow keys walk the bases on plan. Without a window: <tt>talvik bases</tt>.</p>
<h3>Selecting</h3>
<p>Click the slab for its strip, again for a span; click an axis for a support. Left and Right walk supports and spans, Enter opens the worst check, Esc steps back;
with nothing selected the margin shows the state of the whole project. Ctrl+F finds what you name: members, marks, grid references such as C/2, then commands, then checks. F6 goes from part to part.</p>
<h3>Editing</h3>
<p>Place 2 takes spans as a list, such as <tt>3@5.0 4.2</tt>; on plan, double-click a span's figure. PageUp and PageDown make the slab thicker and thinner.
Fields take arithmetic and units: <tt>1.1*500/280</tt>, <tt>8 in</tt>.</p>
<p>In the long section drag the ring at a bar's end (with Shift in larger steps), or double-click a call-out and write <tt>H12 @ 150</tt>. With a run selected (Up, Down):
+ and − change the spacing, [ and ] the bar, H hooks its end (Shift+H its start), Alt+arrows move its start, Ctrl+arrows its end, S divides it at the station line with a lap; A adds bars at the span or support in hand.
Bars follow every change by themselves; what you edit is fixed and marked by a dot, Delete gives it back to the program, Ctrl+B all of them.
Marks are given for good when drawing or schedule leave the office: what has one keeps it. A floor has several sheets, bottom and top bars, long sections, shear steel, schedule: left and right arrow turn them in place 7, on paper and scale that fit. Its bars lie one by one: within the concrete and its cover, in steps of length where edges run askew, lapped by turns; U-bars close edges and openings, and beside openings lies what they cut off. Ctrl+T looks for the least thickness with bars in which no check is over.</p>
<p>In place 6 <i>Divide</i> and <i>Join</i> make two runs of one and one of two; <i>Economical bars</i> (Ctrl+Shift+E) looks for the layout that costs least, by mass, what is cut off, kinds and number of bars at the rates of place 1; what it finds is fixed, in one step that can be taken back.</p>
<h3>Issue</h3>
<p>Place 7 lists what is over, open, not checked and assumed; a click on a check leads to it. Paper and scale are chosen to fit or given, north is an angle from the x axis, <i>Members alike</i> multiplies schedule and quantities. <i>Fix this revision</i> keeps numbers and call-outs of all bars under its letter: what changes afterwards gets a cloud on the sheets, and each row of the schedule the letter under which it last changed. Ctrl+E writes the issue set into a folder: sheets, schedule, bending data, quantities, cutting list, IFC model, report, and what is open. File, <i>Compare with</i> shows inputs, checks, steel and cost beside another state of the project.</p>
<h3>Reading a check</h3>
<p>The bar of a check is ink up to the notch at its limit, hatched past it, with the ratio beside. A dashed frame means not checked, a dash not applicable; both say why.
Click a check for its working: formula, numbers put in, result, clause. Like checks at several places are one line with the worst of them; a click opens it. Bar ends are told as lengths: how far the bars have to reach, and how far they do. Notes below it state assumptions and readings of the clause.</p>
<p>Where something is over, the margin lists what would make it pass, each line tried out on a copy of the project: the largest
ratio after it, and its price in steel and concrete. A click adopts it; Ctrl+F finds it by keyboard; Ctrl+Z takes it back.</p>
<h3>Long section</h3>
<p>Moments: full line, design moments (hogging up); dotted line, moved outwards for curtailment; broken line, resistance of the bars with their anchorage. Hatching shows where the moved line is over the resistance.</p>
<h3>Floors: laying out</h3>
<p>File, <i>New project with a floor</i>, or <i>Add floor</i>. In place 2 type spacings such as <tt>5@6.0 4.5</tt> for the grid, or open a DXF drawing below the plan: place it by two points,
say in the table what its layers become, make members of them, or pick lines one by one.</p>
<p>The tools are on letters: A slab, O opening, Z thickness zone, C column, W wall, B beam, E line support, I pile, S select. Click, or drag a box: over grid crossings it places columns, over bays slabs and beams; G does so on the whole grid.
Figures typed while drawing are a length towards the pointer (<tt>6.5</tt>), length and angle (<tt>6.5&lt;30</tt>), coordinates (<tt>3.2, 4</tt>) or a step from the last point (<tt>@1, -2</tt>); Enter takes them, Backspace takes back.
The pointer catches crossings, ends, middles, edges, perpendiculars and intersections and says which; Shift keeps the line straight along grid or axes. Enter closes an outline, Esc drops it.</p>
<p>With S: click, Shift adds, a box from the left takes what is inside, from the right also what it crosses. Drag, or move with the arrow keys (with Shift finer). Double-click a length beside an outline to type it; click a side to move it alone.
In the tray: copy, mirror, repeat along the grid, split beams; a value typed there is given to all that are selected. PageUp and PageDown change the thickness.</p>
<p>Rings mark what does not meet or is not held, with the gap; the margin mends it. Panels stand in the table below with clear spans, how they carry and why, and a first thickness; type <tt>one-way</tt> or a direction there, for one row or the rows selected. Arrows on plan show it, in the colour of attention where it was set against the sides.</p>
<h3>Floors: loading</h3>
<p>Place 3: a row for each load case with the load on every slab and its total; a use brings its recommended load and factors; an area in the next column reduces the imposed load by the standard's rule. Layers of finishes are typed in the tray.
A area load, L line load, P point load with its footprint, M moment, in the case of the row chosen. The plan shows that case, with what each support carries of it. Below: the combinations, generated or your own, and loads on supports. Imposed loads stand on all panels, on every second one and on each two neighbours, as the standard asks; you may say that all at once is enough, which is then told.</p>
<h3>Floors: strips</h3>
<p>Places 4 to 6 divide the floor into design strips by themselves, in two directions, along lines of columns, walls and beams: column and middle strips by the standard, full width where walls and beams carry, or full width everywhere (<i>Rules of the strips</i> in the tray). X and Y choose the direction. Click a strip, or walk strips with Up and Down, spans and supports with Left and Right; Enter opens the worst check, Esc steps back to the state of the floor.</p>
<p>In place 4 drag an edge of the strip in hand, or double-click it and type its distance from the line of supports. S splits a strip where you click (with Shift lengthwise), M merges, T turns it to an angle, D draws one by its corners, A gives a part of the floor directions of its own, also askew. What you changed is marked by a dot and kept when the floor changes; R gives it back. Slab in no strip, or in two, is hatched, counted on the place and over its limit in the margin.</p>
<p>The long section below holds bars with their ends, moments with the resistance of the bars (dotted: moved outwards), steel required and provided, shear and cracks; a dashed band on plan shows where top steel is concentrated over a column. The words beside supports are the end conditions found from the layout: click one to overrule it. Bars are chosen by the program; one that you edit is fixed, and Delete gives it back. S divides the bars in hand at the station line, with a lap; A adds bars at the span or over the support in hand, to those that are there.</p>
<p>The same rules set twisting (Wood and Armer, or none), moments at faces or axes, which direction lies outermost on each face, the angles, redistribution, the width of peaks.</p>
<h3>Floors: answers</h3>
<p>A floor is analysed and checked in the background after every edit; an answer that is older than the project is pale.
In places 4 to 6 choose in the tray what lines stand on the plan, of which combination, the largest and smallest values of all, the steel required, or required over provided: a proof by the mesh's own field, without the strips, that enough bars lie everywhere; hatched where they do not. It follows the answer in the background. Lines of equal value carry their figure; below zero they are broken, zero is heavy. The wheel zooms, dragging moves the plan, F or Home fits it; the value under the pointer stands below.
<i>Analysis</i> below the plan: loads against reactions of every case, extremes with their places, support forces, second opinions on panels, what to look at and what is taken for granted. <i>How far from converged?</i> analyses once more on half the size.</p>
<h3>Floors: punching</h3>
<p>In places 5 and 6 click a column, a pile, the end of a wall or a point load with a footprint for its connection, or press C for the one that is used most (again for the next, with Shift back); arrows walk to those around it. The plan shows its control perimeter, which is the shortest by geometry round edges, openings (what lies in their shadow is dashed), drops and columns close by; below stands its detail in plan and section, in <i>Connections</i> a row for each, those over first.
K turns its shear steel: studs on rails, links, none; the form on the left does so too, pins a diameter and sets lines of legs fanned at corners or on a grid; the register gives a kind to all rows selected, and pins the size of their columns, so that no remedy makes them larger. Lines, legs and spacings are solved by the rules of the standard, as far out as the perimeter that needs none; lines stand between the bars that run along them. Studs come from a list that can be bought: load yours as comma-separated text with the columns <tt>name, diameter mm, height mm, first mm, spacing mm, least studs, most studs, yield MPa</tt>.
Where it is over, the margin lists what would make this connection pass and leaves nothing else over that was not: studs, links, more top bars, a drop, a larger column, more depth, stronger concrete. <i>Shear stress</i> among the lines shows the resultant shear, with one strong line where it is what concrete carries alone.</p>
<h3>Panel bench</h3>
<p>Ctrl+Shift+B: one section by its moment, one one-way slab by coefficients, one two-way panel by the nine cases of its edges, without a model: type values, read sketch, bars and working, save the page.</p>
<h3>The basis</h3>
<p>Place 1 holds what all share: standard, materials of slabs and of other members, covers, bars by role, limits, rates. Governing values say where they come from, and what they were before; one that was changed after a check had failed says so. The basis saves as an office template and loads into a project.</p>
<h3>What this version does not do</h3>
<p>One-way slabs are designed up to their drawings. Floors are divided into strips, given bars and checked, punching with its shear steel included, and drawn: punching at columns with beams, computed deflection and bars of beams are not there yet. At steps of level bars end or lap; floors are analysed as if level. What a project file holds for the sag of floors is kept and not yet asked for. Sets of bases have pads and caps of one depth without pedestals, straps or starter bars; loads are not yet taken from floors above, and settlement is for the calculator alone.</p>)");
}

}  // namespace talvik::app
