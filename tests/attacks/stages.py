"""What the stages Cabinet and Voice show and write of a design, all of it."""

from contextlib import suppress

from firecrest.assessment.cabinet.drawing import drawing_of
from firecrest.assessment.cabinet.pieces import batch_of, pieces_of, print_plan
from firecrest.assessment.cabinet.spots import spots_in
from firecrest.assessment.cabinet.template import templates_of
from firecrest.assessment.protection import wanted_corner
from firecrest.assessment.voicing.crossing import crossing
from firecrest.assessment.voicing.crossovers import crossovers
from firecrest.assessment.voicing.guarding import guards
from firecrest.assessment.voicing.lining import line_up
from firecrest.core.errors import FirecrestError
from firecrest.files.templates import template_dxf, template_svg
from firecrest.present.cabinet import cutlist, ledger, sheet, solid, tight
from firecrest.present.voice import advice, compare, crossplots, guarding, lanes, plots


def cabinet_shown(assessment):
    """Drawing, solid, cards, cut list, print plan, templates."""
    drawing, spots = drawing_of(assessment), spots_in(assessment)
    sheet.sheet_views(assessment, drawing, spots)
    for shown in ("whole", "apart"):
        faces = solid.faces_of(drawing, shown, 0.6, 0.4)
        solid.seen(faces, 0.6, 0.4)
    ledger.ledger_rows(assessment)
    ledger.measured_note(assessment)
    tight.impossible_sentences(assessment)
    tight.tight_facts(spots)
    tight.lead_facts(assessment, drawing)
    tight.card_facts(drawing, spots)
    tight.balance_facts(assessment, drawing)
    tight.panel_facts(drawing)
    pieces = pieces_of(drawing)
    cutlist.cut_rows(drawing, pieces)
    cutlist.sheet_facts(pieces)
    cutlist.order_text(pieces)
    cutlist.batch_facts(drawing, pieces)
    batch_of(drawing, pieces)
    print_plan(drawing)
    cutlist.print_rows(drawing)
    cutlist.print_facts(drawing)
    for template in templates_of(drawing, 0.003):
        template_svg(template)
        template_dxf(template)


def voice_shown(assessment):
    """Lanes, plots, lining up, where to cross, limiters, settings compared."""
    design, a = assessment.design, assessment.acoustic
    lanes.lanes(assessment)
    lanes.filters_used(design)
    if a is None:
        return
    for plot in PLOTS:
        plot(assessment)
    plots.impulse_plot(assessment)
    guarding.high_pass_facts(assessment)
    wanted_corner(assessment)
    for any_sine in (False, True):
        for channel, found in enumerate(guards(assessment, a, any_sine=any_sine)):
            guarding.guard_facts(assessment, channel, found)
            with suppress(FirecrestError):  # lower than can be set: refused in words
                guarding.guarded(assessment, channel, found, design)
    for criterion in ("sum", "phase"):
        found = line_up(assessment, a, criterion)
        advice.taken(design, advice.steps(assessment, a, found))
        advice.offset_facts(assessment, a, found)
        advice.chosen_pair(found, criterion)
        for pair in found.pairs:
            advice.hole_sentence(design, pair)
    advice.pair_facts(assessment, a)
    for crossover in crossovers(design.voice):
        crossplots.pair_phase_plot(assessment, crossover)
        met = crossing(assessment, a, crossover)
        crossplots.crossing_plot(assessment, met)
        advice.range_sentence(design, met)
        advice.crossing_facts(design, met)
    names = compare.settings_of(design)
    for name in names[1:]:
        compared = compare.compared(assessment, a, names[0], name)
        compare.compare_plot(compared)
        compare.sentence(compared)


PLOTS = (
    plots.sum_plot,
    plots.fan_plot,
    plots.power_plot,
    plots.phase_plot,
    plots.delay_plot,
    lambda a: plots.sum_plot(a, 60.0),
)
