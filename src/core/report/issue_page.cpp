#include "report/issue_page.h"

#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "report/assumed.h"
#include "report/open_matters.h"

namespace talvik::report {

std::vector<IssueLine> beforeIssue(const model::Project& project, const design::Design& design) {
    std::vector<IssueLine> all;
    using Kind = IssueLine::Kind;
    for (const auto& e : design.elements) {
        if (!e->error.empty()) all.push_back({Kind::Open, e->name, e->error});
        if (!e->complete) all.push_back({Kind::Open, e->name, "It is still being calculated."});
        for (const auto& m : openMatters(project, e->element))
            all.push_back({Kind::Open, e->name, m.message});
        std::set<std::string> said;
        for (const auto* c : checks::worstFirst(e->all())) {
            if (c->outcome == checks::Outcome::Over)
                all.push_back(
                    {Kind::Over, e->name, fmt::format("{}: {}", c->title, checks::ratioText(*c)), c});
            if (c->outcome == checks::Outcome::NotChecked && said.insert(c->title + c->reason).second)
                all.push_back(
                    {Kind::NotChecked, e->name, c->title + (c->reason.empty() ? "" : ": " + c->reason), c});
        }
    }
    for (const auto& a : assumed(project, design))
        all.push_back({Kind::Assumed, a.element.empty() ? project.name : a.element, a.text});
    std::stable_sort(all.begin(), all.end(),
                     [](const IssueLine& a, const IssueLine& b) { return a.kind < b.kind; });
    return all;
}

Document issuePage(const model::Project& project, const design::Design& design) {
    Document doc;
    doc.title = project.name + ": before issue";
    doc.system = project.basis.units;
    doc.add(Block::Kind::Title, doc.title);
    const auto all = beforeIssue(project, design);
    const std::pair<IssueLine::Kind, const char*> kinds[] = {
        {IssueLine::Kind::Over, "Failing checks"},
        {IssueLine::Kind::Open, "Outstanding"},
        {IssueLine::Kind::NotChecked, "Not checked by this calculation"},
        {IssueLine::Kind::Assumed, "Assumed"}};
    for (const auto& [kind, title] : kinds) {
        std::vector<std::vector<std::string>> rows{{"Element", "What"}};
        for (const auto& l : all)
            if (l.kind == kind) rows.push_back({l.element, l.text});
        doc.add(Block::Kind::Subheading, title);
        if (rows.size() == 1)
            doc.add(Block::Kind::Paragraph, "Nothing.");
        else
            doc.table(std::move(rows));
    }
    return doc;
}

}  // namespace talvik::report
