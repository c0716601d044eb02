"""Help texts of the stages, as shown by F1."""

HELP = {
    "promise": "<p>Write down what you owe: how loud, how far away, how low, for how long, in what "
    "size, weight and cost. Everything else is judged by it.</p><p><b>Loudness</b> is the level of "
    "a sine with the peak of your programme; it counts from the promised bass note up to about "
    "500 Hz. <b>Must</b> holds the box back, <b>Wish</b> is shown but never does, <b>Open</b> "
    "makes no promise.</p>",
    "parts": "<p>The parts in use over the shelf. Press a card to see what else would do, put into "
    "this design; arrows try a row, Enter takes it, Alt+Enter opens its sheet. The search reads "
    "words and ranges: under €40, 4 ohm, Ø 140 to 200, fs under 60 Hz.</p><p>On a sheet fill in "
    "what you know, in any unit; what follows stands in brackets. A figure that is not known stays "
    "empty: it is never taken as zero. Figures that contradict each other are named with how far "
    "they are apart and who is the likely culprit. Press the likely range beside a figure to say "
    "where it comes from and how good it is.</p>",
    "size": "<p>The <b>ceiling</b> is the loudest clean level at each frequency; its tint and "
    "pattern show the part that gives out first. Outer size, port length and added mass are what "
    "you build; air volume and tuning follow. Typing a volume moves the depth, typing a tuning "
    "moves added mass or port length.</p><p>Click the plot to pin the crosshair; all plots and "
    "the chain follow. T shows the data as a table.</p>",
    "power": "<p>Printed watts hold for one supply and one load. <b>Clean</b> is what is left "
    "without clipping, <b>here</b> what the bus of this design gives. Runtime is played at the "
    "stated mean level, with the bursts of your programme, until a cut-off opens.</p>",
    "voice": "<p>Filters in the order of the board. A boost takes its dB from the ceiling after "
    "voice: that plot shows how loud the voice as a whole may go before a note gives out. When a "
    "held low note would drive a cone too far, the side panel names the high-pass that cures "
    "it.</p>",
}
