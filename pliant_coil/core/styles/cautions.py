"""The usual cautions, one wording each, shown at the step. They defer to local rules and to trained people."""

from pliant_coil.core.words.say import Say

DEFER = Say("These are usual cautions: your local rules, data sheets and the people who trained you go first.")
KINK = Say("A kink now breaks later: work it out before you bend anything.")
CUT = Say("Ends fly: eyes covered, a finger on the off-cut, the flat of the cutter to the piece you keep.")
WHIP = Say("The free end of springy wire whips: hold both ends, eyes covered.")
THREAD_FIRST = Say("Thread now whatever only the plain wire passes.")
LAST_EASY = Say("This is the last easy moment to change the size: read it.")
COATED = Say("Coated wire: no file and no hammer; wrap the jaws.")
STONE = Say("Press on wire, never on the stone; glass and shell chip.")
NO_MALLET = Say("No mallet above the stone.")
DRILL = Say("Drill or crank: clamp the far end, glasses on, go slowly, hair and sleeves away from the chuck.")
HAMMER = Say("Fingers off the stake, eyes and ears covered; tape holds the ring where fingers would be near the face.")
SAW = Say("Fingers behind the blade, the work clamped; blades snap: glasses on.")
TORCH = Say(
    "Torch: eyes covered, moving air, water at hand, a fireproof place, hair and sleeves tied. Metal stays hot after it stops glowing. "
    "Use cadmium-free solder and keep out of its fumes."
)
FLUX = Say("Flux: moving air and gloves.")
PICKLE = Say(
    "Pickle: steel wire off first, glasses and gloves, acid into water and never the other way; copper or plastic tongs; let the metal cool, "
    "never drop it in hot."
)
PATINA = Say(
    "Patina: under a hood or outdoors, gloves and glasses on. Sulphur patina with acid gives a poisonous gas: keep it from acids and pickle; "
    "follow its data sheet."
)
TUMBLER = Say("Tumbler: its lid shut tight, the cord away from water; the shot stainless, or dried at once.")
GRIND = Say("Grinding or polishing: wet, or a mask; nothing loose near the spindle.")
REAM = Say("Open a bead's hole wet, with mask and glasses on: stone and glass dust harms the lungs.")
FINE_PULL = Say("Last pulls of fine wire gently: it breaks at an edge.")
TIPS = Say("Fine tools near the face: tips away from the eyes.")
PAUSE = Say("After 25 minutes of one motion, a pause.")
SWOLLEN = Say("Before it is given away: ends felt, size read, metal named. A ring that sticks on a swollen finger has to be cut off.")
EDGES = Say("A cut edge scratches: a finger over every end, then a thread, inside too.")
