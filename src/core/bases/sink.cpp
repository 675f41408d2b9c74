#include "bases/sink.h"

#include <fmt/format.h>

namespace talvik::bases {

void Sink::add(std::string_view key, std::string_view title, checks::Topic topic, checks::Finding finding,
               trace::Steps steps, Under under, std::optional<model::Face> face) {
    over_ |= finding.outcome == checks::Outcome::Over;
    if (!into_) return;
    into_->add({std::string(key), std::string(title), topic, std::move(finding), std::move(steps)}, place_,
               under.combination < 0 ? std::string() : combination_(under), face);
}

void Sink::add(const char* key, const char* title, Way way, checks::Topic topic, checks::Finding finding,
               trace::Steps steps, Under under) {
    if (!into_) return add("", "", topic, std::move(finding));
    add(fmt::format("{}-{}{}", key, way.letter(), way.top ? "-top" : ""),
        fmt::format("{} along {}{}", title, way.letter(), way.top ? ", top" : ""), topic, std::move(finding),
        std::move(steps), under, way.face());
}

}  // namespace talvik::bases
