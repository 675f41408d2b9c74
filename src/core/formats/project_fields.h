// What the fields of everything in a project file are called, and in which units they stand.
#pragma once

#include "formats/json_fields.h"

namespace talvik::formats {

inline constexpr double kPa = 1e-3, perCubicMetre = 1e-6;

inline const Names<units::System> systems{
    {{units::System::Metric, "metric"}, {units::System::UsCustomary, "us"}}};
inline const Names<model::Support::Kind> supportKinds{
    {{model::Support::Kind::Beam, "beam"}, {model::Support::Kind::Wall, "wall"}}};
inline const Names<model::BarEnd> barEnds{
    {{model::BarEnd::Straight, "straight"}, {model::BarEnd::Hook, "hook"}}};
inline const Names<model::Role> roles{{{model::Role::BottomMain, "bottom"},
                                       {model::Role::TopMain, "top"},
                                       {model::Role::TopBand, "top band"},
                                       {model::Role::BottomSecondary, "bottom across"},
                                       {model::Role::TopSecondary, "top across"},
                                       {model::Role::EndU, "end U"},
                                       {model::Role::SideU, "side U"}}};

inline const Names<model::ConnectionChoice::Steel> shearSteels{
    {{model::ConnectionChoice::Steel::None, "none"},
     {model::ConnectionChoice::Steel::Links, "links"},
     {model::ConnectionChoice::Steel::Studs, "studs"},
     {model::ConnectionChoice::Steel::Solved, "solved"}}};

template <class Io, class Basis>
void basisFields(Io& io, Basis& b) {
    io.field("standard", b.standard);
    io.field("concrete", b.concrete);
    io.field("concrete_strength_MPa", b.concreteStrength);
    io.field("concrete_density_kN_m3", b.concreteDensity, perCubicMetre);
    io.field("steel", b.steel);
    io.field("steel_yield_MPa", b.steelYield);
    io.field("aggregate_mm", b.aggregate);
    io.field("creep", b.creep);
    io.field("shrinkage_strain", b.shrinkage);
    io.field("cover_top_mm", b.coverTop);
    io.field("cover_bottom_mm", b.coverBottom);
    io.field("cover_side_mm", b.coverSide);
    io.field("crack_limit_top_mm", b.crackLimitTop);
    io.field("crack_limit_bottom_mm", b.crackLimitBottom);
    io.field("bar_catalog", b.barCatalog);
    io.field("main_bars", b.mainBars);
    io.field("secondary_bars", b.secondaryBars);
    io.field("spacing_least_mm", b.spacingLeast);
    io.field("spacing_most_mm", b.spacingMost);
    io.field("spacing_step_mm", b.spacingStep);
    io.field("stock_length_mm", b.stockLength);
    io.since(3, [&] {
        io.field("link_bars", b.linkBars);
        io.field("cover_foundation_mm", b.coverFoundation);
        io.field("sag_limit_span_over", b.sagLimit);
        io.field("sag_limit_after_partitions_span_over", b.sagLimitAfter);
        io.field("minimum_steel", b.minimumSteel);
    });
    io.since(9, [&] { io.field("length_step_mm", b.lengthStep); });
    io.since(7, [&] {
        io.field("stud_table", b.studTable);
        io.field("stud_rails", b.studRails);
    });
    io.since(14, [&] { io.field("shear_steel", b.shearSteel, shearSteels); });
}
template <class Io, class Material>
void materialFields(Io& io, Material& m) {
    io.field("concrete", m.concrete);
    io.field("concrete_strength_MPa", m.strength);
    io.field("concrete_density_kN_m3", m.density, perCubicMetre);
    io.field("modulus_MPa", m.modulus);
    io.field("creep", m.creep);
    io.field("shrinkage_strain", m.shrinkage);
    io.field("steel", m.steel);
    io.field("steel_yield_MPa", m.yield);
}
// The kinds of member that have materials of their own, and the things that have rates, by their keys.
template <class Basis, class F>
void eachMaterial(Basis& b, F f) {
    f("beam", b.beam);
    f("column", b.column);
    f("foundation", b.foundation);
    f("pile_cap", b.pileCap);
}
template <class Rates, class F>
void eachRate(Rates& r, int version, F f) {
    f("concrete_m3", r.concrete);
    f("steel_kg", r.steel);
    f("formwork_m2", r.formwork);
    f("blinding_m3", r.blinding);
    f("excavation_m3", r.excavation);
    f("pile_m", r.pile);
    if (version < 9) return;
    f("bar_mark", r.mark);
    f("bar_piece", r.piece);
    if (version < 15) return;
    f("stronger_m3_MPa", r.stronger);
}
template <class Io, class Slab>
void slabFields(Io& io, Slab& s) {
    io.field("id", s.id);
    io.field("name", s.name);
    io.since(9, [&] { io.field("members", s.members); });
    io.field("width_mm", s.width);
    io.field("thickness_mm", s.thickness);
    io.field("thickness_pinned", s.thicknessPinned);
    io.field("cantilever_start", s.cantileverStart);
    io.field("cantilever_end", s.cantileverEnd);
    io.field("other_dead_kN_m2", s.otherDead, kPa);
    io.field("imposed_use", s.imposedUse);
    io.field("imposed_kN_m2", s.imposed, kPa);
    io.since(16, [&] { io.field("shear_links", s.shearLinks); });
    io.before(16, s.shearLinks, false);
}
template <class Io, class Support>
void supportFields(Io& io, Support& s) {
    io.field("id", s.id);
    io.field("kind", s.kind, supportKinds);
    io.field("width_mm", s.width);
    io.field("monolithic", s.monolithic);
}
template <class Io, class Finish>
void finishFields(Io& io, Finish& f) {
    io.field("id", f.id);
    io.field("material", f.material);
    io.field("thickness_mm", f.thickness);
    io.field("density_kN_m3", f.density, perCubicMetre);
}
template <class Io, class Rail>
void railFields(Io& io, Rail& r) {
    io.field("name", r.name);
    io.field("diameter_mm", r.diameter);
    io.field("height_mm", r.height);
    io.field("first_mm", r.first);
    io.field("spacing_mm", r.spacing);
    io.field("least_studs", r.least);
    io.field("most_studs", r.most);
    io.field("yield_MPa", r.yield);
}
template <class Io, class Run>
void runFields(Io& io, Run& r) {
    io.field("id", r.id);
    io.since(6, [&] {
        io.field("part", r.part);
        io.field("role", r.role, roles);
    });
    io.field("from_mm", r.from);
    io.field("to_mm", r.to);
    io.field("bar", r.bar);
    io.field("spacing_mm", r.spacing);
    io.field("start", r.start, barEnds);
    io.field("end", r.end, barEnds);
}
template <class Io, class Sheet>
void sheetFields(Io& io, Sheet& s) {
    io.field("number", s.number);
    io.field("revision", s.revision);
    io.field("date", s.date);
    io.field("author", s.author);
    io.field("note", s.note);
    io.since(9, [&] {
        io.field("paper", s.paper);
        io.field("scale", s.scale);
        io.field("north_degrees", s.north);
        io.field("every_bar", s.everyBar);
    });
}

inline const Names<model::Source::Kind> sourceKinds{
    {{model::Source::Kind::Assumed, "assumed"},
     {model::Source::Kind::Investigation, "site investigation"},
     {model::Source::Kind::Client, "client"},
     {model::Source::Kind::Standard, "standard"}}};
inline const Names<model::PanelChoice::Span> panelSpans{
    {{model::PanelChoice::Span::OneWay, "one-way"}, {model::PanelChoice::Span::TwoWay, "two-way"}}};
inline const Names<model::Arrangement> arrangements{
    {{model::Arrangement::InTurn, "in turn"}, {model::Arrangement::All, "all"}}};
inline const Names<actions::LimitState> limitStates{
    {{actions::LimitState::Ultimate, "ultimate"},
     {actions::LimitState::Characteristic, "characteristic"},
     {actions::LimitState::Frequent, "frequent"},
     {actions::LimitState::QuasiPermanent, "quasi-permanent"}}};
inline const Names<model::Zone::Level> levels{{{model::Zone::Level::Top, "top"},
                                               {model::Zone::Level::Bottom, "bottom"},
                                               {model::Zone::Level::Middle, "middle"}}};
inline const Names<model::Bearing> bearings{{{model::Bearing::Spring, "spring"},
                                             {model::Bearing::Pinned, "pinned"},
                                             {model::Bearing::Rigid, "rigid"}}};
inline const Names<model::SagLine::Of> sagLimits{
    {{model::SagLine::Of::AfterPartitions, "after partitions"}, {model::SagLine::Of::Total, "total"}}};
inline const Names<model::LineSupport::Kind> lineKinds{{{model::LineSupport::Kind::Simple, "simple"},
                                                        {model::LineSupport::Kind::Clamped, "clamped"},
                                                        {model::LineSupport::Kind::Symmetry, "symmetry"}}};
inline const Names<model::LoadCase::Nature> natures{{{model::LoadCase::Nature::SelfWeight, "self-weight"},
                                                     {model::LoadCase::Nature::Permanent, "permanent"},
                                                     {model::LoadCase::Nature::Imposed, "imposed"},
                                                     {model::LoadCase::Nature::Wind, "wind"},
                                                     {model::LoadCase::Nature::Accidental, "accidental"}}};
inline const Names<model::FloorLoad::Kind> loadKinds{{{model::FloorLoad::Kind::Area, "area"},
                                                      {model::FloorLoad::Kind::Line, "line"},
                                                      {model::FloorLoad::Kind::Point, "point"},
                                                      {model::FloorLoad::Kind::Moment, "moment"}}};

inline const Names<model::StripChoices::Width> stripWidths{
    {{model::StripChoices::Width::ColumnAndMiddle, "column and middle"},
     {model::StripChoices::Width::Full, "full"}}};
inline const Names<model::StripChoices::Twisting> twistings{
    {{model::StripChoices::Twisting::WoodArmer, "Wood-Armer"},
     {model::StripChoices::Twisting::None, "none"}}};
inline const Names<model::EndCondition> endConditions{{{model::EndCondition::Free, "free"},
                                                       {model::EndCondition::OnBeam, "on beam"},
                                                       {model::EndCondition::Continuous, "continuous"},
                                                       {model::EndCondition::Cantilever, "cantilever"}}};

inline const Names<model::ConnectionChoice::Legs> legLayouts{
    {{model::ConnectionChoice::Legs::Fanned, "fanned"}, {model::ConnectionChoice::Legs::Grid, "grid"}}};

template <class Io, class Rules>
void stripRuleFields(Io& io, Rules& r) {
    io.field("own_angles", r.ownAngles);
    io.field("angle_1_deg", r.angle[0]);
    io.field("angle_2_deg", r.angle[1]);
    io.field("automatic_1", r.automatic[0]);
    io.field("automatic_2", r.automatic[1]);
    io.field("width", r.width, stripWidths);
    io.field("twisting", r.twisting, twistings);
    io.field("face_of_support", r.faceOfSupport);
    io.field("peak_width_mm", r.peakWidth);
    io.field("outer_layer_top", r.outerTop);
    io.field("outer_layer_bottom", r.outerBottom);
    io.field("redistribution", r.redistribution);
    io.since(15, [&] { io.field("shear_links", r.links); });
    io.before(15, r.links, false);
}

template <class Io, class M>
void memberFields(Io& io, M& m) {
    using T = std::remove_const_t<M>;
    io.field("id", m.id);
    if constexpr (requires { m.name; }) io.field("name", m.name);
    if constexpr (std::is_same_v<T, model::Grid>) {
        io.field("origin_mm", m.origin);
        io.field("angle_deg", m.angle);
        io.field("between_deg", m.between);
        io.field("along_mm", m.along);
        io.field("across_mm", m.across);
        io.field("along_labels", m.alongLabels);
        io.field("across_labels", m.acrossLabels);
    } else if constexpr (std::is_same_v<T, model::Underlay>) {
        io.field("at_mm", m.at);
        io.field("angle_deg", m.angle);
        io.field("scale", m.scale);
        io.field("hidden_layers", m.hidden);
    } else if constexpr (std::is_same_v<T, model::PanelChoice>) {
        io.field("at_mm", m.at);
        io.field("span", m.span, panelSpans);
        io.field("angle_deg", m.angle);
    } else if constexpr (std::is_same_v<T, model::Camber>) {
        io.field("at_mm", m.at);
        io.field("rise_mm", m.rise);
    } else if constexpr (std::is_same_v<T, model::SagLine>) {
        io.field("a_mm", m.a);
        io.field("b_mm", m.b);
        io.field("of", m.of, sagLimits);
        io.field("limit_mm", m.limit);
    } else if constexpr (std::is_same_v<T, model::StripArea>) {
        io.field("outline_mm", m.outline);
        io.field("angle_1_deg", m.angle[0]);
        io.field("angle_2_deg", m.angle[1]);
    } else if constexpr (std::is_same_v<T, model::StripEdge>) {
        io.field("direction", m.direction);
        io.field("line", m.line);
        io.field("side", m.side);
        io.field("offset_mm", m.offset);
    } else if constexpr (std::is_same_v<T, model::DrawnStrip>) {
        io.field("direction", m.direction);
        io.field("angle_deg", m.angle);
        io.field("outline_mm", m.outline);
    } else if constexpr (std::is_same_v<T, model::SpanEnd>) {
        io.field("strip", m.strip);
        io.field("support", m.support);
        io.field("side", m.side);
        io.field("condition", m.condition, endConditions);
    } else if constexpr (std::is_same_v<T, model::ConnectionChoice>) {
        io.field("connection", m.connection);
        io.field("shear_steel", m.steel, shearSteels);
        io.field("diameter_mm", m.diameter);
        io.since(8, [&] {
            io.field("legs", m.legs, legLayouts);
            io.field("pinned", m.pinned);
        });
    } else if constexpr (std::is_same_v<T, model::CombinationRow>) {
        io.field("clause", m.clause);
        io.field("state", m.state, limitStates);
        io.field("factors", m.factors);
    } else if constexpr (std::is_same_v<T, model::SlabArea>) {
        io.field("outline_mm", m.outline);
        io.field("thickness_mm", m.thickness);
        io.since(3, [&] { io.field("level_mm", m.level); });
    } else if constexpr (std::is_same_v<T, model::Zone>) {
        io.field("outline_mm", m.outline);
        io.field("thickness_mm", m.thickness);
        io.field("level_face", m.level, levels);
    } else if constexpr (std::is_same_v<T, model::Opening>) {
        io.field("outline_mm", m.outline);
    } else if constexpr (std::is_same_v<T, model::Column>) {
        io.field("x_mm", m.x);
        io.field("y_mm", m.y);
        io.field("circular", m.circular);
        io.field("width_mm", m.width);
        io.field("depth_mm", m.depth);
        io.field("angle_deg", m.angle);
        io.field("below", m.below);
        io.field("above", m.above);
        io.field("height_below_mm", m.heightBelow);
        io.field("height_above_mm", m.heightAbove);
        io.field("far_ends_fixed", m.farEndsFixed);
        io.field("bearing", m.bearing, bearings);
    } else if constexpr (std::is_same_v<T, model::Wall>) {
        io.field("a_mm", m.a);
        io.field("b_mm", m.b);
        io.field("thickness_mm", m.thickness);
        io.field("height_mm", m.height);
        io.field("stiff", m.stiff);
    } else if constexpr (std::is_same_v<T, model::LineSupport>) {
        io.field("a_mm", m.a);
        io.field("b_mm", m.b);
        io.field("kind", m.kind, lineKinds);
    } else if constexpr (std::is_same_v<T, model::FloorBeam>) {
        io.field("a_mm", m.a);
        io.field("b_mm", m.b);
        io.field("width_mm", m.width);
        io.field("depth_mm", m.depth);
        io.field("upstand", m.upstand);
        io.field("torsion_share", m.torsion);
    } else if constexpr (std::is_same_v<T, model::Ground>) {
        io.field("outline_mm", m.outline);
        io.field("modulus_MN_m3", m.modulus, 1e-3);
    } else if constexpr (std::is_same_v<T, model::Pile>) {
        io.field("x_mm", m.x);
        io.field("y_mm", m.y);
        io.field("diameter_mm", m.diameter);
        io.field("stiffness_kN_mm", m.stiffness, 1e3);
    } else if constexpr (std::is_same_v<T, model::LoadCase>) {
        io.field("nature", m.nature, natures);
        io.field("use", m.use);
        io.since(3, [&] { io.field("reduction_area_m2", m.reductionArea, 1e6); });
    } else if constexpr (std::is_same_v<T, model::FloorLoad>) {
        io.field("case", m.loadCase);
        io.field("kind", m.kind, loadKinds);
        using K = model::FloorLoad::Kind;
        if (m.kind == K::Area) {
            io.field("value_kN_m2", m.value, kPa);
            io.field("outline_mm", m.outline);
            io.since(3, [&] { io.field("layers", m.layers); });
        } else if (m.kind == K::Line) {
            io.field("value_kN_m", m.value);
            io.field("a_mm", m.a);
            io.field("b_mm", m.b);
        } else if (m.kind == K::Point) {
            io.field("value_kN", m.value, 1e3);
            io.field("at_mm", m.a);
            io.field("width_mm", m.width);
            io.field("depth_mm", m.depth);
        } else {
            io.field("value_x_kNm", m.value, 1e6);
            io.field("value_y_kNm", m.valueY, 1e6);
            io.field("at_mm", m.a);
        }
    }
}
inline const Names<model::BaseSet::Kind> baseKinds{
    {{model::BaseSet::Kind::Pads, "pads"}, {model::BaseSet::Kind::Caps, "caps"}}};
inline const Names<model::BaseTop::Kind> baseTops{{{model::BaseTop::Kind::Level, "level"},
                                                   {model::BaseTop::Kind::Sloped, "sloped"},
                                                   {model::BaseTop::Kind::Stepped, "stepped"}}};
inline const Names<model::CapOutline> capOutlines{{{model::CapOutline::Rectangular, "rectangular"},
                                                   {model::CapOutline::AlongPiles, "along piles"},
                                                   {model::CapOutline::CornersCut, "corners cut"}}};
inline const Names<model::CapSteel> capSteels{{{model::CapSteel::Greater, "greater"},
                                               {model::CapSteel::Bending, "bending"},
                                               {model::CapSteel::Truss, "truss"}}};
inline const Names<model::GroundValues::By> groundRules{
    {{model::GroundValues::By::Gross, "gross pressure"},
     {model::GroundValues::By::Net, "net pressure"},
     {model::GroundValues::By::Drained, "drained resistance"},
     {model::GroundValues::By::Undrained, "undrained resistance"}}};
inline const Names<actions::Nature> actionNatures{{{actions::Nature::Permanent, "permanent"},
                                                   {actions::Nature::Imposed, "imposed"},
                                                   {actions::Nature::Wind, "wind"},
                                                   {actions::Nature::Accidental, "accidental"}}};
template <class Io, class Set>
void baseSetFields(Io& io, Set& s) {
    io.field("id", s.id);
    io.field("name", s.name);
    io.field("kind", s.kind, baseKinds);
    io.field("two_formulas", s.twoFormulas);
    io.field("approach", s.approach);
    io.field("types", s.mostTypes);
    io.field("plan_step_mm", s.planStep);
    io.field("depth_step_mm", s.depthStep);
    io.field("least_depth_mm", s.leastDepth);
    io.field("bars", s.bars);
    io.since(11, [&] {
        io.field("starter_bar", s.starterBar);
        io.field("side_bar", s.sideBar);
        io.field("side_spacing_mm", s.sideSpacing);
        io.field("left_out", s.leftOut);
        auto corner = [](auto& of, auto& p) {
            of.field("x_mm", p.x);
            of.field("y_mm", p.y);
        };
        io.rows("site", 200, s.site, corner);
    });
    io.since(13, [&] {
        io.field("link_bar", s.linkBar);
        io.field("link_spacing_mm", s.linkSpacing);
    });
    io.since(17, [&] {
        io.field("cap_outline", s.outline, capOutlines);
        io.field("cap_steel", s.capSteel, capSteels);
        io.field("top_bars", s.topBars);
    });
}
template <class Io, class Ground>
void groundFields(Io& io, Ground& g) {
    io.field("by", g.by, groundRules);
    io.field("allowable_kN_m2", g.allowable, kPa);
    io.field("cohesion_kN_m2", g.cohesion, kPa);
    io.field("friction_deg", g.friction);
    io.field("undrained_kN_m2", g.undrained, kPa);
    io.field("weight_below_kN_m3", g.weightBelow, perCubicMetre);
    io.field("depth_mm", g.depth);
    io.field("soil_kN_m3", g.soil, perCubicMetre);
    io.field("surcharge_kN_m2", g.surcharge, kPa);
    io.field("water", g.water);
    io.field("water_depth_mm", g.waterDepth);
    io.field("base_friction_deg", g.baseFriction);
    io.field("blinding_mm", g.blinding);
    io.since(11, [&] {
        io.field("adhesion_kN_m2", g.adhesion, kPa);
        io.field("passive_share", g.passiveShare);
        io.field("settlement_mm", g.settlement);
        auto layer = [](auto& of, auto& l) {
            of.field("thickness_mm", l.thickness);
            of.field("modulus_MPa", l.modulus);
            of.field("poisson", l.poisson);
        };
        io.rows("layers", 50, g.layers, layer);
    });
}
template <class Io, class Pile>
void pileFields(Io& io, Pile& p) {
    io.field("circular", p.circular);
    io.field("size_mm", p.diameter);
    io.field("compression_kN", p.compression, 1e3);
    io.field("tension_kN", p.tension, 1e3);
    io.field("ultimate", p.ultimate);
    io.field("spacing_factor", p.spacingFactor);
    io.field("edge_mm", p.edge);
    io.field("embedment_mm", p.embedment);
    io.field("tolerance_mm", p.tolerance);
    io.since(11, [&] { io.field("lateral_kN", p.lateral, 1e3); });
    io.since(17, [&] { io.field("length_mm", p.length); });
}
template <class Io, class Case>
void actionCaseFields(Io& io, Case& c) {
    io.field("id", c.id);
    io.field("name", c.name);
    io.field("nature", c.kind.nature, actionNatures);
    io.field("use", c.kind.use);
    io.since(11, [&] { io.field("from_floors", c.fromFloors); });
}
template <class Io, class Column>
void baseColumnFields(Io& io, Column& c) {
    io.field("id", c.id);
    io.field("name", c.name);
    io.field("x_mm", c.x);
    io.field("y_mm", c.y);
    io.field("width_mm", c.width);
    io.field("depth_mm", c.depth);
    io.since(11, [&] {
        auto support = [](auto& of, auto& f) {
            of.field("floor", f.floor);
            of.field("support", f.support);
        };
        io.rows("stands_below", 100, c.from, support);
    });
}
template <class Io, class Action>
void columnActionFields(Io& io, Action& a) {
    io.field("case", a.loadCase);
    io.field("N_kN", a.N, 1e3);
    io.field("Hx_kN", a.Hx, 1e3);
    io.field("Hy_kN", a.Hy, 1e3);
    io.field("Mx_kNm", a.Mx, 1e6);
    io.field("My_kNm", a.My, 1e6);
}
// 0 or nothing: not pinned.
template <class Io, class Base>
void baseFields(Io& io, Base& b) {
    io.field("id", b.id);
    io.field("columns", b.columns);
    io.field("along_x_mm", b.B);
    io.field("along_y_mm", b.L);
    io.field("depth_mm", b.h);
    io.field("off_pinned", b.offPinned);
    io.field("off_x_mm", b.offX);
    io.field("off_y_mm", b.offY);
    io.field("piles", b.piles);
    io.field("bar", b.bar);
    io.field("spacing_mm", b.spacing);
    io.field("type", b.type);
    io.since(11, [&] {
        io.field("ratio", b.ratio);
        io.field("pedestal_x_mm", b.pedestal.width);
        io.field("pedestal_y_mm", b.pedestal.depth);
        io.field("pedestal_height_mm", b.pedestal.height);
        io.field("left_out", b.leftOut);
    });
    io.since(13, [&] {
        io.field("top", b.top.kind, baseTops);
        io.field("edge_depth_mm", b.top.edge);
        io.field("shoulder_mm", b.top.shoulder);
        io.field("strap_to", b.strap.to);
        io.field("strap_width_mm", b.strap.width);
        io.field("strap_depth_mm", b.strap.depth);
    });
}

template <class Io, class Vibration>
void vibrationFields(Io& io, Vibration& v) {
    io.field("on", v.on);
    io.field("imposed_share", v.imposed);
    io.field("damping", v.damping);
    io.field("limit", v.limit);
}
template <class Io, class Choices>
void choiceFields(Io& io, Choices& c) {
    io.field("mesh_size_mm", c.meshSize);
    io.field("shear_deformation", c.shearDeformation);
    io.field("ground_takes_tension", c.groundTakesTension);
    io.field("slab_stiffness", c.modifiers.slab);
    io.field("beam_stiffness", c.modifiers.beam);
    io.field("column_stiffness", c.modifiers.column);
    io.field("wall_stiffness", c.modifiers.wall);
}

}  // namespace talvik::formats
