// talvik design FILE -o OUT: the least thickness where it is not pinned; bars follow from it.
#include <fmt/format.h>

#include "cli/commands.h"
#include "design/economy.h"
#include "formats/project_file.h"

namespace talvik::cli {

void addDesign(CLI::App& app, int& exitCode) {
    struct Options {
        Source source;
        std::string out;
        bool economical = false;
    };
    auto o = std::make_shared<Options>();
    auto* command = app.add_subcommand(
        "design", "Choose the minimum thickness where it is not fixed, with the bars that follow");
    o->source.options(*command);
    command->add_option("-o,--output", o->out, "Project file to write")->required();
    command->add_flag("--economical", o->economical,
                      "Then the cheapest bars by the rates of the basis, fixed");
    command->callback([o, &exitCode] {
        auto project = o->source.open();
        if (!project) return void(exitCode = BadInput);
        if (exitCode = refuse(design::run(*project, {.trace = false})); exitCode != Done) return;
        auto designed = design::designAll(*project);
        std::vector<model::Id> elements;
        for (const auto& s : designed.slabs) elements.push_back(s->id);
        for (const auto& f : designed.floors) elements.push_back(f->id);
        for (const auto& id : elements) {
            if (!o->economical) break;
            auto found = design::economicalLayout(designed, id);
            const auto &a = found.before, &b = found.after;
            const auto* slab = model::findSlab(designed, id);
            fmt::print(
                "{}: steel {:.0f} to {:.0f} kg, offcuts {:.0f} to {:.0f} kg, marks {} to {}, bars {} to {}, "
                "cost {:.0f} to {:.0f} {}; {} layouts tried\n",
                slab ? slab->name : model::findFloor(designed, id)->name, a.steel, b.steel, a.waste, b.waste,
                a.marks, b.marks, a.pieces, b.pieces, a.price, b.price, designed.basis.rates.currency,
                found.tried);
            designed = std::move(found.project);
        }
        const auto after = design::run(designed, {.trace = false});
        if (exitCode = refuse(after); exitCode != Done) return;
        const auto sum = after.summary();
        if (auto why = formats::saveProject(o->out, designed); !why.empty())
            return void(exitCode = fail(why, CannotWrite));
        for (const auto& slab : designed.slabs)
            fmt::print("{}: {} thick\n", slab->name,
                       units::text(slab->thickness, units::Kind::Length, designed.basis.units));
        fmt::print("{} failing, {} passing, {} not checked\n{}\n", sum.over, sum.within, sum.notChecked,
                   o->out);
        exitCode = sum.over ? SomethingOver : Done;
    });
}

}  // namespace talvik::cli
