#include "core/base/catalogue.h"

#include <algorithm>

namespace orthema {

namespace {

constexpr Severity note = Severity::note, caution = Severity::caution, stop = Severity::stop;

const std::vector<Entry> entries = {
    // who and what a sentence speaks of
    {"who", note, "", "“{design}” on {run}"},
    {"who-size", note, "", "“{design}” on {run} {size}"},

    // order
    {"order-empty", caution, "order", "The order has no lines yet: import a list, or type the first."},
    {"line-blank-unknown", stop, "order", "A line asks for the blank “{blank}”, which is not in the order: choose its blank."},
    {"line-size-unknown", stop, "order", "{blank} has no size “{size}”: correct the line's size."},
    {"line-quantity", caution, "order", "A line has no quantity: type one, or take the line out."},
    {"decoration-art", stop, "fit", "“{design}” has no artwork: choose one on the Art bench."},
    {"decoration-medium", stop, "fit", "“{design}” has no medium: choose film or paper."},
    {"decoration-run", stop, "fit", "“{design}” is meant for {run}, of which nothing is ordered."},
    {"rule-hangs-otherwise", note, "fit",
     "“{design}” hangs from the {what}; {blank} has none, so on {run} it hangs as is usual there. Give it figures of its own, or let it "
     "be."},
    {"cannot-blank", note, "", "is not among the order's blanks"},
    {"cannot-figures", note, "", "its figures are not usable"},
    {"cannot-location", note, "", "has no {location}"},
    {"passed-over", note, "", "Passed over: {run} {why}."},
    {"passed-over-more", note, "", "Passed over: {run} {why}; and {n?one more|more}, as the page Lots says."},
    {"cannot-press", note, "", "no press here takes a {location}"},

    // blanks
    {"blank-figures", stop, "blanks", "{fault}"},
    {"measured-differs", caution, "blanks",
     "{blank} {size}, {measure}: measured {measured}, published {published}. Measure a second piece, and the neighbouring sizes."},
    {"smallest-unmeasured", note, "blanks",
     "{run}: the smallest size, {size}, is as published. Measure it first: everything is sized from it."},
    {"figure-unit-slip", caution, "blanks", "{blank} {size}, {measure}: {value} where {expected} is likely. {slip}: check its unit."},
    {"slip-inch-cm", note, "", "It looks like inches taken for centimetres"},
    {"slip-cm-inch", note, "", "It looks like centimetres taken for inches"},
    {"slip-inch-mm", note, "", "It looks like inches taken for millimetres, or the other way"},
    {"slip-cm-mm", note, "", "It looks like centimetres taken for millimetres, or the other way"},
    {"slip-half", note, "", "It looks like the half for the whole, or the other way"},
    {"figures-swapped", caution, "blanks",
     "{blank} {size}, {measure}: it and {other} seem to be exchanged ({value} where {expected} is likely). Swap them, or measure again."},
    {"figure-out-of-step", caution, "blanks", "{blank} {size}, {measure}: {value} is less than the size before it. Measure both again."},
    {"figure-off-grading", caution, "blanks", "{blank} {size}, {measure}: {value} where its neighbours put {expected}. Measure it again."},

    // art
    {"art-unused", note, "art", "“{design}” is on no garment yet: put it on a blank."},
    {"art-empty", stop, "art", "{art} has no visible ink: bring in another picture."},
    {"art-background", caution, "art",
     "{art} has a flat background that would print as a box: remove it in the picture, or keep it on purpose."},
    {"art-half-transparent", caution, "art",
     "{art}: {share} of the ink is half-transparent and prints with a white halo on film: harden its edges."},
    {"art-font-missing", caution, "art",
     "{art} asks for the font “{font}”, which is not on this machine, so another stands in: turn its lettering to outlines."},
    {"art-resolution", caution, "art",
     "{art} has only {dpi} dpi at {width}: print it smaller, or bring in a larger picture (150 dpi or more)."},
    {"art-unreadable", stop, "art", "{fault}"},
    {"art-clip", stop, "art", "{fault}"},

    // what holds a width
    {"binds-nothing", note, "", "nothing"},
    {"binds-ideal", note, "", "ideal"},
    {"binds-pinned", note, "", "pinned by hand"},
    {"binds-covering", note, "", "covering the blank"},
    {"binds-obstacle", note, "", "{name}"},
    {"binds-platen", note, "", "platen"},
    {"binds-medium", note, "", "medium width"},
    {"binds-cutter", note, "", "cutter"},
    {"binds-resolution", note, "", "resolution floor"},
    {"binds-band", note, "", "band ({size})"},
    {"binds-smallest", note, "", "smallest ({size})"},
    {"binds-shared", note, "", "shared with another blank"},

    // fit: place and size
    {"same-differs", caution, "fit", "{who} {way} on {other}, and nobody asked for that: bring both under one rule."},
    {"differs-width", note, "", "is {here} wide, and {there}"},
    {"differs-place", note, "", "lies {apart} from where it lies"},
    {"ink-over", stop, "fit", "{who} lies over the {feature}: move it by {short}, or make it smaller."},
    {"ink-too-close", caution, "fit", "{who} is {short} too close to the {feature}: move it, or make it smaller."},
    {"ink-hidden", caution, "fit",
     "{who}: the {feature} lies over {hidden} of it. Lower it, or accept that it shows only when the {feature} is out of the way."},
    {"mark-unknown", caution, "fit",
     "{who}: “{mark}” should meet the {landmark}, but one of them is not there. Set the mark on the Art bench, or take the meeting out."},
    {"mark-missed", caution, "fit", "{who}: “{mark}” misses the {landmark} by {off}. Move the design {way}."},
    {"way-up", note, "", "up"},
    {"way-down", note, "", "down"},
    {"way-left", note, "", "to your left"},
    {"way-right", note, "", "to your right"},
    {"short-of-ideal", caution, "fit",
     "{who}: the {by} holds it to {limit}, ideal {ideal}. Move it, or leave {size} to a band of its own."},
    {"thin-stroke", caution, "fit",
     "{who}: its thinnest stroke is {is}, and {method} holds {least}. Thicken it in the picture, or print it larger."},
    {"narrow-gap", caution, "fit",
     "{who}: its narrowest gap is {is}, and {method} closes below {least}. Open it in the picture, or print it larger."},
    {"art-contrast", caution, "fit",
     "{who}: {share} of its ink is nearly the colour of the cloth and vanishes. Give it an outline, or another colour."},
    {"feature-loose", note, "fit", "{who}: lay the {feature} aside before the press closes; it hangs over the ink."},

    // fit: platen
    {"press-unsuited", caution, "fit", "{who}: the {press} does not take this kind of blank. Choose another press."},
    {"platen-shifted", note, "fit", "{who}, {sizes}: {way}{others}."},
    {"platen-other", note, "fit", "{who}, {sizes}: press {way}{others}."},
    {"platen-pad", note, "fit", "{who}, {sizes}: press {way}{others}."},
    {"platen-several", caution, "fit", "{who}, {sizes}: larger than any platen of the {press}. Plan {way}, or make it smaller."},
    {"platen-none", caution, "fit",
     "{who}, {sizes}: {way}. Move the design, choose another press, or give this press a smaller platen or pad."},
    {"off-platen", stop, "fit", "{who}, {sizes}: {way}. Move the design, choose another press, or give this press a larger platen."},
    {"shift-others", note, "", "; up to {shift} on the others"},
    {"way-as-is", note, "", "as it is, on the {platen}"},
    {"way-shifted", note, "", "the platen lies {moves}, so that the {feature} hangs off its edge"},
    {"way-other", note, "", "on the {platen}{clear}{moves}"},
    {"way-pad", note, "", "over the {pad}, which lifts it above the {feature}{moves}"},
    {"way-several", note, "", "{n} presses on the {platen}, each overlapping the last by {lap}"},
    {"way-too-large", note, "", "{over} too large for the {press}"},
    {"way-none", note, "", "no platen or pad of the {press} keeps clear of the {feature}"},
    {"clear-of", note, "", ", clear of the {feature}"},
    {"lying", note, "", ", lying {moves}"},
    {"moved-lower", note, "", "lower by {by}"},
    {"moved-higher", note, "", "higher by {by}"},
    {"moved-right", note, "", "to your right by {by}"},
    {"moved-left", note, "", "to your left by {by}"},

    // fit: methods and making
    {"method-unsuited", caution, "fit", "{who}: {method} does not suit, {why}. Choose another method under Making."},
    {"why-fabric", note, "", "{fabric} does not take it ({takes})"},
    {"why-never", note, "", "not on {fabric}"},
    {"why-dark", note, "", "the cloth is too dark: its ink is transparent"},
    {"why-tones", note, "", "the design has tones: it is cut from sheets of one colour"},
    {"why-half", note, "", "half-transparent parts cannot be cut"},
    {"why-stroke", note, "", "strokes of {is} are finer than the {least} it holds"},
    {"why-gap", note, "", "gaps of {is} are narrower than the {least} it keeps open"},
    {"why-knit", note, "", "it does not give with a stretching knit"},
    {"why-no-medium", note, "", "no medium of it is in the shop"},
    {"of-layer", note, "", " in the layer “{layer}”"},
    {"weed-sliver", caution, "fit",
     "{who}: {n} {n?sliver|slivers}{of} thinner than {least}: {n?it tears|they tear} when weeded. Thicken {n?it|them} in the picture."},
    {"weed-gap", caution, "fit",
     "{who}: {n} {n?gap|gaps}{of} narrower than {least} that will not weed. Open {n?it|them}, or fill small holes."},
    {"weed-island", caution, "fit",
     "{who}: {n} {n?island|islands}{of} smaller than {least} that will be lost. Take {n?it|them} out, or join by bridges."},
    {"colours-tones", caution, "fit",
     "{who}: {share} of its ink lies between the colours: it has tones, which cut sheets cannot hold. Print it, or redraw it in flat "
     "colours."},
    {"layer-swallowed", stop, "fit", "{who}: the layer “{layer}”: {fault}"},
    {"layer-empty", stop, "fit", "{who}: the layer “{layer}” has no shape: no part of the picture is near its colour."},
    {"layer-short", caution, "fit",
     "{who}: the layer “{layer}” ends up to {by} inside the print: ink past it does not hold. Grow it by {by} more."},
    {"layers-married", note, "fit",
     "{who}: marry the print and “{layer}” by their marks, then trim both along the print's edge in one cut: what stays of it shows."},
    {"foil-short", caution, "fit",
     "{who}: the layer “{layer}” reaches up to {by} past “{upper}”: bare adhesive sticks to the cover. Grow the upper layer, or choke "
     "the lower one."},
    {"split-impossible", stop, "fit", "{who}: {fault}"},
    {"white-swallowed", stop, "fit", "{who}: choking the white by {by} leaves nothing of it: choke less."},
    {"wall-impossible", stop, "fit", "{who}: {fault}"},
    {"taper-none", note, "fit", "{who}: its diameters are equal: the wall is a cylinder and its sheet a rectangle."},
    {"lap-short", caution, "fit",
     "{who}: a lap of {lap} is less than the blank's tolerance of {tolerance}: some will show a white line. Lap by more."},
    {"lap-dark", note, "fit", "{who}: the lap of {lap} prints twice and dark: mask the end that lies below."},
    {"butt-line", note, "fit", "{who}: the ends meet edge to edge: with a tolerance of {tolerance} a white line of up to {line} may show."},
    {"rim-bare", caution, "fit",
     "{who}: missed by {missed} it leaves a bare rim; it stands {stands}. Give it more bleed, or fill the clear parts of the picture."},
    {"back-differs", stop, "fit",
     "{who}: its back does not lie on its front when folded: holes or slanted edges face the wrong way. Check the blank's features on "
     "both faces."},
    {"jig-media", stop, "fit", "“{jig}” holds designs on different media: a board is one sheet. Give them one medium, or a jig each."},
    {"jig-impossible", stop, "fit", "{fault}"},
    {"jig-left", caution, "fit", "{n} of “{design}” {n?has|have} no slot in “{jig}”: assign one to it."},

    // sheets
    {"mirror-parity", stop, "sheets", "{medium}: it would come out mirrored{why}"},
    {"mirror-none", note, "", ": {method} is read through its carrier and nobody mirrors. Say who does."},
    {"mirror-twice", note, "", ", since {method} is read as printed. Set its mirror to nobody."},
    {"stock-short", caution, "sheets",
     "{medium}: {laid} of “{stock}” are laid out and {held} {held?is|are} on hand. Buy more, or settle again."},
    {"sheet-empty", caution, "sheets", "{medium}: nothing is laid out yet. Settle the pieces on the Sheets bench."},
    {"sheet-stale", stop, "sheets", "{medium}: the layout is not for the transfers of now ({fault}). Settle it again."},
    {"groups-mixed", note, "sheets", "{medium}: pieces that are wanted together lie among others. Settle again to part the groups."},
    {"seam-crossed", caution, "sheets",
     "{medium}: {n} {n?piece crosses|pieces cross} the taped seam, where ink breaks. Turn or move what has fine ink there; the lap faces "
     "the feed."},
    {"label-room", note, "sheets",
     "{medium}, sheet {sheet}: {n} {n?piece has|pieces have} no room for a label beside the contour. A wider gap gives room."},

    // press
    {"not-in-press-plan", caution, "press", "“{design}” is not in the press plan: {why}"},
    {"press-unset", note, "", "choose its press on the Fit bench."},
    {"recipe-none", note, "", "its method has no recipe; give it one on the Press bench."},
    {"press-late", caution, "press",
     "Pressing ends at {ends}, {late} after it is due: begin earlier, add a hand, or let presses share the work."},
    {"too-hot-for-cloth", caution, "press",
     "“{design}” is pressed at {celsius} °C on {fabric}, which bears {most}: {because}. Press cooler and longer, and try a piece."},
    {"heated-too-long", caution, "press", "“{layer}” is {seconds} s under heat and bears {limit}: {mend}."},
    {"mend-tacks", note, "", "shorten the tacks of the layers above it"},
    {"mend-beside", note, "", "press it after the other design, or protect it with a sheet"},
    {"heated-too-often", caution, "press",
     "“{layer}” is heated {heats} times and bears {most}: take fewer tacks or parts, or press it after the other design."},
    {"print-behind", note, "press", "“{design}” lies behind another design: lay a sheet between when the other side is pressed."},
    {"glued-seams", note, "press", "The seams of {blank} are glued and soften in the heat: short presses, and let it cool flat."},
    {"snaps-under-platen", caution, "press",
     "Snaps lie under the platen of “{design}”: they get hot enough to burn and hold the platen up. Use a pad."},

    // guides
    {"guide-stale", caution, "guides",
     "The printed guides of “{design}” ({sizes}) were made from other figures: print them again, and take the old ones away."},
};

}  // namespace

const std::vector<Entry>& catalogue() { return entries; }

const Entry* find_entry(std::string_view code) {
    const auto at = std::find_if(entries.begin(), entries.end(), [&](const Entry& e) { return e.code == code; });
    return at == entries.end() ? nullptr : &*at;
}

}  // namespace orthema
