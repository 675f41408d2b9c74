#include "model/base_edits.h"

#include <algorithm>

namespace talvik::model {
namespace {

void freePlan(Base& base) {
    base.B = base.L = 0;
    base.offPinned = false, base.offX = base.offY = 0;
    base.piles = 0;
    base.pilesAt.clear();
}
bool in(const std::vector<Id>& bases, const Id& id) {
    return std::find(bases.begin(), bases.end(), id) != bases.end();
}

}  // namespace

void joinInSet(BaseSet& set, const std::vector<Id>& bases) {
    Base* first = nullptr;
    for (auto& b : set.bases) {
        if (!in(bases, b.id)) continue;
        if (!first) {
            first = &b;
            continue;
        }
        first->columns.insert(first->columns.end(), b.columns.begin(), b.columns.end());
        b.columns.clear();
        freePlan(*first);
    }
    std::erase_if(set.bases, [](const Base& b) { return b.columns.empty(); });
    dropLooseStraps(set);
}
Project joinBases(const Project& project, std::string_view set, const std::vector<Id>& bases) {
    return editBases(project, set, [&](BaseSet& s, Project&) { joinInSet(s, bases); });
}

Project partBases(const Project& project, std::string_view set, const std::vector<Id>& bases) {
    return editBases(project, set, [&](BaseSet& s, Project& next) {
        std::vector<Base> all;
        for (auto& b : s.bases) {
            const auto columns = b.columns;
            if (!in(bases, b.id) || columns.size() < 2) {
                all.push_back(b);
                continue;
            }
            freePlan(b);
            b.columns = {columns.front()};
            all.push_back(b);
            for (std::size_t i = 1; i < columns.size(); ++i) {
                Base own = b;
                own.strap = {};
                own.id = newId(next, 'b');
                own.columns = {columns[i]};
                all.push_back(std::move(own));
            }
        }
        s.bases = std::move(all);
        dropLooseStraps(s);
    });
}

}  // namespace talvik::model
