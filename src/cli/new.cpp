// talvik new -o FILE: a new project of one element, or the demo.
#include <fmt/format.h>

#include "cli/commands.h"
#include "formats/project_file.h"
#include "layout/placing.h"
#include "model/edits.h"
#include "standards/rules.h"
#include "units/units.h"

namespace talvik::cli {
namespace {

struct Options {
    bool demo = false, floor = false;
    std::string out, kind = "slab", standard = "en1992", units, spans, thickness, load;
};

// The project that the options ask for; else a sentence.
std::string made(const Options& o, model::Project& p) {
    const auto ids = standards::standardIds();
    if (std::find(ids.begin(), ids.end(), o.standard) == ids.end())
        return fmt::format("There is no standard \"{}\"; there are: {}.", o.standard, fmt::join(ids, ", "));
    p = model::freshProject(o.standard);
    if (!o.units.empty())
        p.basis.units = o.units == "us" ? units::System::UsCustomary : units::System::Metric;
    const auto value = [&](const std::string& text, units::Kind kind, const char* option,
                           double& into) -> std::string {
        if (text.empty()) return {};
        const auto parsed = units::parse(text, kind, p.basis.units);
        if (!parsed.value) return fmt::format("{}: {}", option, parsed.error);
        into = *parsed.value;
        return {};
    };
    double thickness = 0, load = 0;
    for (const auto& why : {value(o.thickness, units::Kind::Length, "--thickness", thickness),
                            value(o.load, units::Kind::AreaLoad, "--load", load)})
        if (!why.empty()) return why;
    if (o.kind != "slab" && (!o.spans.empty() || !o.thickness.empty()))
        return "--spans and --thickness are for one-way slabs: a floor begins without an outline, bases "
               "without columns.";
    if (o.kind == "floor") {
        const auto id = layout::addFloor(p, "Floor 1");
        if (!o.load.empty())
            p = model::editFloor(p, id, [&](model::Floor& f, model::Project& next) {
                for (const auto& c : std::vector(f.actions.cases))
                    if (c.nature == model::LoadCase::Nature::Imposed)
                        layout::loadEverywhere(next, f, c.id).value = load;
            });
        return {};
    }
    if (o.kind == "pads" || o.kind == "caps") {
        if (!o.load.empty()) return "--load is for slabs and floors: bases take the loads of their columns.";
        const bool caps = o.kind == "caps";
        auto set = model::newBaseSet(p, caps ? "Pile caps 1" : "Bases 1",
                                     caps ? model::BaseSet::Kind::Caps : model::BaseSet::Kind::Pads);
        set->id = model::newId(p, 'f');
        p.bases.push_back(std::move(set));
        return {};
    }
    p = model::addSlab(p, "Slab 1");
    const auto id = p.slabs.front()->id;
    if (!o.spans.empty()) {
        const auto spans = units::parseSpacingList(o.spans, units::Kind::Span, p.basis.units);
        if (!spans.error.empty()) return "--spans: " + spans.error;
        p = model::setSpans(p, id, spans.values, false, false);
    }
    p = model::editSlab(p, id, [&](model::OneWaySlab& s, model::Project&) {
        if (!o.thickness.empty()) s.thickness = thickness, s.thicknessPinned = true;
        if (!o.load.empty()) s.imposed = load;
    });
    if (const auto wrong = model::validate(p); !wrong.empty()) return formats::sentences(wrong);
    return {};
}

}  // namespace

void addNew(CLI::App& app, int& exitCode) {
    auto o = std::make_shared<Options>();
    auto* command = app.add_subcommand("new", "Write a new project of one element, or the demo");
    command->add_flag("--demo", o->demo, "The visitors' gallery of the Sundvarg ferry landing");
    command->add_flag("--demo-floor", o->floor, "The deck of its fish hall, a floor on columns");
    command->add_option("--kind", o->kind, "slab, floor, pads or caps; a one-way slab without")
        ->check(CLI::IsMember({"slab", "floor", "pads", "caps"}));
    command->add_option("--standard", o->standard,
                        "Standard, whose usual materials, bars and units it begins with");
    command->add_option("--units", o->units, "metric or us; those of the standard without")
        ->check(CLI::IsMember({"metric", "us"}));
    command->add_option("--spans", o->spans, "Of a one-way slab, such as \"3@5.0 4.2\", in m or ft");
    command->add_option("--thickness", o->thickness, "Of a one-way slab, in mm or in, kept when designing");
    command->add_option("--load", o->load, "Imposed load, in kN/m2 or psf");
    command->add_option("-o,--output", o->out, "Project file to write; without, it is printed");
    command->callback([o, &exitCode] {
        model::Project project;
        if (o->demo || o->floor)
            project = o->demo ? formats::demoProject() : formats::demoFloorProject();
        else if (const auto why = made(*o, project); !why.empty())
            return void(exitCode = fail(why, BadInput));
        if (o->out.empty()) return fmt::print("{}", formats::projectText(project));
        if (auto why = formats::saveProject(o->out, project); !why.empty())
            return void(exitCode = fail(why, CannotWrite));
        fmt::print("{}\n", o->out);
    });
}

}  // namespace talvik::cli
