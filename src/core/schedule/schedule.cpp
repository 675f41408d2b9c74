#include "schedule/schedule.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

#include "schedule/cutting.h"

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
        case Role::TopBand:
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
    Maker(const Body& body, const line::LineBasis& in)
        : body_(body), in_(in), basis_(in.basis), anchorage_(*in.standard.anchorage) {}

    std::vector<Item> run(const std::vector<bars::Run>& runs) {
        for (const auto& r : runs) add(r);
        return std::move(items_);
    }

  private:
    void add(const bars::Run& r) {
        const catalogs::Bar& bar = *catalogs::barCatalog(basis_.barCatalog)->find(r.bar);
        double depth = units::roundDown(body_.thickness - basis_.coverTop - basis_.coverBottom, 5);
        double inside = body_.breadth - 2 * basis_.coverSide;
        Item item;
        item.run = r.id;
        item.bar = r.bar;
        item.diameter = bar.diameter;
        item.spacing = r.spacing;
        item.layer = layerName(r.role);
        item.from = r.from, item.to = r.to;
        auto finish = [&](Item i) {
            cut(i, bar, anchorage_);
            items_.push_back(std::move(i));
        };
        if (r.role == Role::EndU || r.role == Role::SideU) {
            double leg = r.role == Role::EndU ? r.to - r.from : units::roundUp(2 * body_.thickness, 50);
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
        const double leg = hookLeg(depth, bar.diameter, anchorage_);
        bool hookStart = !across && r.start == BarEnd::Hook, hookEnd = !across && r.end == BarEnd::Hook;
        if ((hookStart || hookEnd) && leg > depth) item.note = tilted;
        // Pieces: as few as the stock length allows, equal, lapped in between.
        const double rule = anchorage_.lap(bars::anchorageInput(r, false, body_.thickness, in_));
        double lap = units::roundUp(rule, 50), hooks = leg * (hookStart + hookEnd),
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
            shape(piece, straight, leg, bendStart, bendEnd);
            finish(piece);
        }
    }

    const Body& body_;
    const line::LineBasis& in_;
    const model::Basis& basis_;
    const standards::AnchorageRules& anchorage_;
    std::vector<Item> items_;
};

int markOf(const Item& item, const Marks& marks) {
    const auto found = marks.find(signature(item));
    return found == marks.end() ? 0 : found->second;
}

}  // namespace

std::vector<Item> items(const std::vector<bars::Run>& runs, const Body& body, const line::LineBasis& in) {
    return Maker(body, in).run(runs);
}

std::vector<double> linkRows(double from, double to, double along) {
    std::vector<double> rows(std::size_t(std::max(1, int(std::ceil((to - from) / along - 1e-9)))));
    for (std::size_t k = 0; k < rows.size(); ++k)
        rows[k] = from + (double(k) + 0.5) * (to - from) / double(rows.size());
    return rows;
}

// Legs of one link a little nearer to each other than those of two, by the rounding of its breadth.
int linkPairs(double breadth, double diameter, double across) {
    return std::max(1, int(std::ceil(breadth / std::max(across - diameter - 5, 50.0) / 2 - 1e-9)));
}

Item closedLink(const std::string& bar, double thickness, double apart, const line::LineBasis& in) {
    const auto& known = *catalogs::barCatalog(in.basis.barCatalog)->find(bar);
    Item i;
    i.bar = bar, i.diameter = known.diameter, i.layer = "S", i.shape = "51";
    i.dimensions = {{'A', units::roundDown(thickness - in.basis.coverTop - in.basis.coverBottom, 5)},
                    {'B', units::roundDown(apart + known.diameter, 5)},
                    {'C', units::roundUp(std::max(10 * known.diameter, 70.0), 5)}};
    cut(i, known, *in.standard.anchorage);
    return i;
}

Item links(const std::string& bar, double from, double to, double along, double across, const Body& body,
           const line::LineBasis& in) {
    const double breadth = body.breadth - 2 * in.basis.coverSide,
                 diameter = catalogs::barCatalog(in.basis.barCatalog)->find(bar)->diameter;
    const int pairs = linkPairs(breadth, diameter, across);
    Item i = closedLink(bar, body.thickness, breadth / (2 * pairs), in);
    i.run = fmt::format("links/{:.0f}", from);
    i.spacing = along, i.from = from, i.to = to, i.number = int(linkRows(from, to, along).size()) * pairs;
    return i;
}

std::string signature(const Item& item) {
    return signature(item.bar, item.shape, item.dimensions);
}
std::string signature(const std::string& bar, const std::string& shape,
                      const std::map<char, double>& dimensions) {
    std::string s = bar + "/" + shape;
    for (auto [letter, value] : dimensions) s += fmt::format("/{}{}", letter, units::plain(value));
    return s;
}

void number(const std::vector<Item>& items, Marks& marks) {
    int next = 1;
    for (const auto& [key, mark] : marks) next = std::max(next, mark + 1);
    for (const Item& item : items)
        if (marks.emplace(signature(item), next).second) ++next;
}

std::string callout(const Item& item, const Marks& marks, units::System system) {
    return callout(std::vector<Item>{item}, item.run, marks, system);
}

std::string callout(const std::vector<Item>& all, const model::Id& run, const Marks& known,
                    units::System system) {
    const Item* first = nullptr;
    std::set<int> marks;
    int number = 0;  // of bars that lie one by one in a plan all count; else the pieces of a bar are one
    for (const Item& item : all)
        if (item.run == run) {
            if (!first) first = &item;
            marks.insert(markOf(item, known));
            number += item.lie.empty() ? 0 : item.number;
        }
    if (!first) return {};
    if (number == 0) number = first->number;
    std::string joined;
    if (marks.size() > 3)  // bars cut in steps
        joined = fmt::format("{:02}/…/{:02}", *marks.begin(), *marks.rbegin());
    else
        for (int mark : marks) joined += (joined.empty() ? "" : "/") + fmt::format("{:02}", mark);
    const std::string spacing =
        first->spacing > 0 ? "-" + units::number(first->spacing, units::Kind::BarSpacing, system) : "";
    return fmt::format("{} {}-{}{} {}", number, first->bar, joined, spacing, first->layer);
}

Schedule make(const std::vector<Item>& items, const Marks& marks, const std::string& member, int members) {
    Schedule s;
    std::map<int, Row> rows;
    for (const Item& item : items) {
        const int mark = markOf(item, marks);
        Row& row = rows[mark];
        if (row.number == 0)
            row = {
                mark,          member, item.bar, item.shape, item.dimensions, item.diameter, item.cutLength,
                item.massEach, 0,      members,  {}};
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
            t.number += row.total();
            t.length += row.total() * row.cutLength;
            t.mass += row.mass();
            all.mass += row.mass();
        }
    for (auto& [key, total] : totals) all.totals.push_back(total);
    return all;
}

}  // namespace talvik::schedule
