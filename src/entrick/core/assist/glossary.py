"""Words of the trade as the desk uses them, each told in a sentence (common practice, no
source)."""

from __future__ import annotations

WORDS = {
    "given": "A size the brief gives, under a name; what is drawn by it follows when it changes.",
    "act": "One thing done at the board with one instrument: a swing, a line, a mark.",
    "piece": "A line, arc or curve of an outline, from where it begins to where the next does.",
    "run": "Pieces end to end that are one thing, such as a chamfered edge; it may be open.",
    "opening": "How far the compass or dividers stand apart.",
    "datum": "The place everything on the sheet is measured from.",
    "swing": "An arc drawn lightly with the compass to find a place: every point of it is as far "
    "from the needle.",
    "line in": "Go over what stands in light lines with a heavy one, along the finished outline.",
    "plumb": "Straight up and down on the sheet.",
    "level": "Straight across the sheet, along the T-square.",
    "tangent": "Touching without crossing, so that no corner shows where the two meet.",
    "touch point": "Where two curves touch; the arc is stopped there, on the line of centres or "
    "square to the line.",
    "line of centres": "The straight line through the centres of two circles; they touch on it.",
    "beside": "Touching from outside: the centres lie apart by the sum of the radii.",
    "around": "Touching from around: the centres lie apart by the difference of the radii.",
    "inside": "Touching from within: the centres lie apart by the difference of the radii.",
    "locus": "All the places a centre could lie; where two cross, it lies.",
    "bisect": "Halve, with compass and straight edge: swings of one opening from both ends, and "
    "the line through their "
    "crossings.",
    "station": "One of the places, numbered in order, at which a curve is found point by point.",
    "step off": "Carry one opening of the dividers along again and again.",
    "foot": "Where the square from a point meets a line.",
    "pitch circle": "The circle on which holes, or teeth, are counted.",
    "addendum": "How far a tooth stands out of the pitch circle; on a diameter it counts on both "
    "sides.",
    "dedendum": "How far the space goes in from the pitch circle.",
    "lead": "How far a thread moves along in one whole turn; with several starts more than its "
    "pitch.",
    "lift": "How far a follower has come from its lowest place.",
    "dwell": "A part of the turn in which the follower stands.",
    "chain": "Lengths one after another that add up to a whole.",
}
"""Each as it stands in a sentence, in small letters, with what it means."""
