// talvik calc TOPIC < in.csv > out.csv: the batch calculator.
#include "calc/calc.h"

#include <fmt/format.h>

#include <iostream>
#include <iterator>

#include "cli/commands.h"
#include "formats/file.h"

namespace talvik::cli {

void addCalc(CLI::App& app, int& exitCode) {
    struct Options {
        std::string topic, in, out;
        bool list = false;
    };
    auto o = std::make_shared<Options>();
    auto* command = app.add_subcommand("calc", "Batch calculator: comma-separated rows in, results out");
    command->add_option("TOPIC", o->topic, "What to calculate; see --list");
    command->add_flag("--list", o->list, "Describe all topics, or the one named");
    command->add_option("-i,--input", o->in, "File to read; without, standard input");
    command->add_option("-o,--output", o->out,
                        "File to write; without, standard output. Nothing is written where a row is wrong");
    command->callback([o, &exitCode] {
        if (o->list) {
            for (const auto& t : calc::topics())
                if (o->topic.empty() || t.name == o->topic) fmt::print("{}\n", calc::describe(t));
            if (!o->topic.empty() && !calc::topic(o->topic))
                exitCode = fail("There is no topic \"" + o->topic + "\"; see talvik calc --list.", BadInput);
            return;
        }
        const calc::Topic* topic = calc::topic(o->topic);
        if (!topic)
            return void(exitCode = fail(o->topic.empty() ? "Name a topic; see talvik calc --list."
                                                         : "There is no topic \"" + o->topic +
                                                               "\"; see talvik calc --list.",
                                        BadInput));
        std::string text;
        if (o->in.empty()) {
            text.assign(std::istreambuf_iterator<char>(std::cin), {});
        } else {
            auto file = formats::readTable(o->in);
            if (!file.error.empty()) return void(exitCode = fail(file.error, BadInput));
            text = std::move(file.text);
        }
        auto result = calc::run(*topic, text);
        if (!result.error.empty()) return void(exitCode = fail(result.error, BadInput));
        if (o->out.empty()) return fmt::print("{}", result.text);
        if (auto why = formats::writeFile(o->out, result.text); !why.empty())
            exitCode = fail(why, CannotWrite);
    });
}

}  // namespace talvik::cli
