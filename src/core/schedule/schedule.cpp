#include "schedule/schedule.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

namespace talvik::schedule {
namespace {

using model::BarEnd;
using model::Role;

std::string layerName(Role role) {
    switch (role) {
        case Role::BottomMain:
            return "B1";
        case Role::BottomSecondary:
            return "B2";
        case Role::TopMain:
            return "T1";
        case Role::TopSecondary:
            return "T2";
        case Role::EndU:
        case Role::SideU:
            return "U";
    }
    return {};
}

int barsOver(double width, double spacing) {
    return static_cast<int>(std::ceil(std::max(width, 0.0) / spacing - 1e-6)) + 1;
}

class Maker {
  public:
    Maker(const model::OneWaySlab& slab, const model::Basis& basis, const std::map<std::string, int>& marks,
          const LapLength& lap, const Bends& bends)
        : slab_(slab), basis_(basis), marks_(marks), lap_(lap), bends_(bends) {}

    std::vector<Item> run() {
        for (const auto& r : slab_.bars) add(r);
        return std::move(items_);
    }

  private:
    void add(const model::BarRun& r) {
        const catalogs::Bar& bar = *catalogs::barCatalog(basis_.barCatalog)->find(r.bar);
        double depth = units::roundDown(slab_.thickness - basis_.coverTop - basis_.coverBottom, 5);
        double inside = slab_.width - 2 * basis_.coverSide;
        Item item;
        item.slab = slab_.id;
        item.run = r.id;
        item.role = r.role;
        item.bar = r.bar;
        item.diameter = bar.diameter;
        item.spacing = r.spacing;
        item.layer = layerName(r.role);
        item.from = r.from, item.to = r.to;
        auto finish = [&](Item i) {
            double exact =
                catalogs::cutLength(i.shape, bar.diameter, bends_.radius(bar.diameter), i.dimensions)
                    .value_or(0);
            i.cutLength = units::roundUp(exact, 25);
            i.massEach = i.cutLength / 1000 * bar.massPerMetre;
            if (auto mark = marks_.find(signature(i)); mark != marks_.end()) i.mark = mark->second;
            items_.push_back(std::move(i));
        };
        if (r.role == Role::EndU || r.role == Role::SideU) {
            double leg = r.role == Role::EndU ? r.to - r.from : units::roundUp(2 * slab_.thickness, 50);
            item.shape = "21";
            item.dimensions = {{'A', units::roundUp(leg, 5)}, {'B', depth}, {'C', units::roundUp(leg, 5)}};
            item.number =
                r.role == Role::EndU ? barsOver(inside, r.spacing) : 2 * barsOver(r.to - r.from, r.spacing);
            finish(item);
            return;
        }
        const bool across = model::across(r.role);
        double total = across ? inside : r.to - r.from;
        item.number = barsOver(across ? r.to - r.from : inside, r.spacing);
        double leg = std::max(
            depth, units::roundUp(bends_.radius(bar.diameter) + bar.diameter + bends_.tail(bar.diameter), 5));
        bool hookStart = !across && r.start == BarEnd::Hook, hookEnd = !across && r.end == BarEnd::Hook;
        if ((hookStart || hookEnd) && leg > depth)
            item.note = "hooks lie tilted: the tail is longer than the depth between the covers";
        // Pieces: as few as the stock length allows, equal, lapped in between.
        double lap = units::roundUp(lap_(r), 50), hooks = leg * (hookStart + hookEnd),
               stock = basis_.stockLength;
        int pieces = total + hooks <= stock
                         ? 1
                         : std::max(2, static_cast<int>(std::ceil(
                                           (total + hooks - lap) / std::max(stock - lap, 1000.0) - 1e-9)));
        double each = units::roundDown((total + (pieces - 1) * lap) / pieces, 5);
        if (pieces > 1) item.note = fmt::format("{} pieces, lap {}", pieces, units::plain(lap));
        for (int i = 0; i < pieces; ++i) {
            Item piece = item;
            piece.from = r.from + i * (each - lap);
            piece.to = i + 1 == pieces ? r.to : piece.from + each;
            bool bendStart = hookStart && i == 0, bendEnd = hookEnd && i + 1 == pieces;
            double straight = pieces == 1 ? units::roundDown(total, 5) : each;
            if (bendStart && bendEnd)
                piece.shape = "21", piece.dimensions = {{'A', leg}, {'B', straight}, {'C', leg}};
            else if (bendStart || bendEnd)
                piece.shape = "11", piece.dimensions = {{'A', straight}, {'B', leg}};
            else
                piece.shape = "00", piece.dimensions = {{'A', straight}};
            finish(piece);
        }
    }

    const model::OneWaySlab& slab_;
    const model::Basis& basis_;
    const std::map<std::string, int>& marks_;
    const LapLength& lap_;
    const Bends& bends_;
    std::vector<Item> items_;
};

}  // namespace

std::vector<Item> items(const model::OneWaySlab& slab, const model::Basis& basis,
                        const std::map<std::string, int>& marks, const LapLength& lap, const Bends& bends) {
    return Maker(slab, basis, marks, lap, bends).run();
}

std::string signature(const Item& item) {
    std::string s = item.bar + "/" + item.shape;
    for (auto [letter, value] : item.dimensions) s += fmt::format("/{}{}", letter, units::plain(value));
    return s;
}

void assignMarks(model::Project& project, const LapLength& lap, const Bends& bends) {
    int next = 1;
    for (const auto& [key, mark] : project.marks) next = std::max(next, mark + 1);
    for (const auto& slab : project.slabs)
        for (const Item& item : items(*slab, project.basis, project.marks, lap, bends))
            if (project.marks.emplace(signature(item), next).second) ++next;
}

std::string callout(const Item& item, units::System system) {
    return fmt::format("{} {}-{:02}-{} {}", item.number, item.bar, item.mark,
                       units::number(item.spacing, units::Kind::BarSpacing, system), item.layer);
}

std::string callout(const std::vector<Item>& all, const model::Id& run, units::System system) {
    const Item* first = nullptr;
    std::set<int> marks;
    for (const Item& item : all)
        if (item.run == run) {
            if (!first) first = &item;
            marks.insert(item.mark);
        }
    if (!first) return {};
    std::string joined;
    for (int mark : marks) joined += (joined.empty() ? "" : "/") + fmt::format("{:02}", mark);
    return fmt::format("{} {}-{}-{} {}", first->number, first->bar, joined,
                       units::number(first->spacing, units::Kind::BarSpacing, system), first->layer);
}

Schedule make(const std::vector<Item>& items, const std::string& member) {
    Schedule s;
    std::map<int, Row> rows;
    for (const Item& item : items) {
        Row& row = rows[item.mark];
        if (row.number == 0)
            row = {item.mark,     member,         item.bar,      item.shape, item.dimensions,
                   item.diameter, item.cutLength, item.massEach, 0};
        row.number += item.number;
    }
    for (auto& [mark, row] : rows) s.rows.push_back(row);
    return join({s});
}

Schedule join(const std::vector<Schedule>& parts) {
    Schedule all;
    std::map<std::pair<double, std::string>, Total> totals;
    for (const Schedule& part : parts)
        for (const Row& row : part.rows) {
            all.rows.push_back(row);
            Total& t = totals[{row.diameter, row.bar}];
            t.bar = row.bar, t.diameter = row.diameter;
            t.number += row.number;
            t.length += row.number * row.cutLength;
            t.mass += row.mass();
            all.mass += row.mass();
        }
    for (auto& [key, total] : totals) all.totals.push_back(total);
    return all;
}

}  // namespace talvik::schedule
