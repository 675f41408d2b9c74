// The model as IFC, read by a reader that knows the schema and is not ours (libifcplusplus): every entity is
// one of IFC 4 with its attributes, and what it holds is what the project holds.
#include <gtest/gtest.h>
#include <ifcpp/IFC4/include/IfcCartesianPoint.h>
#include <ifcpp/IFC4/include/IfcCartesianPointList2D.h>
#include <ifcpp/IFC4/include/IfcCountMeasure.h>
#include <ifcpp/IFC4/include/IfcDefinitionSelect.h>
#include <ifcpp/IFC4/include/IfcDirection.h>
#include <ifcpp/IFC4/include/IfcGloballyUniqueId.h>
#include <ifcpp/IFC4/include/IfcLabel.h>
#include <ifcpp/IFC4/include/IfcLengthMeasure.h>
#include <ifcpp/IFC4/include/IfcMassMeasure.h>
#include <ifcpp/IFC4/include/IfcMaterial.h>
#include <ifcpp/IFC4/include/IfcQuantityCount.h>
#include <ifcpp/IFC4/include/IfcQuantityVolume.h>
#include <ifcpp/IFC4/include/IfcQuantityWeight.h>
#include <ifcpp/IFC4/include/IfcReal.h>
#include <ifcpp/IFC4/include/IfcRelAssociatesMaterial.h>
#include <ifcpp/IFC4/include/IfcRoot.h>
#include <ifcpp/IFC4/include/IfcVolumeMeasure.h>
#include <ifcpp/model/BuildingModel.h>
#include <ifcpp/reader/ReaderSTEP.h>

#include <cmath>
#include <map>
#include <regex>
#include <set>

#include "design/design.h"
#include "formats/ifc.h"
#include "formats/project_file.h"
#include "schedule/schedule.h"

using namespace talvik;

namespace {

struct Read {
    std::shared_ptr<BuildingModel> model = std::make_shared<BuildingModel>();
    std::string messages;

    static void hear(void* to, std::shared_ptr<StatusCallback::Message> m) {
        if (m->m_message_type < StatusCallback::MESSAGE_TYPE_MINOR_WARNING) return;
        for (wchar_t c : m->m_message_text) static_cast<Read*>(to)->messages += static_cast<char>(c);
    }
    explicit Read(const std::string& text) {
        // This edition of the reader has no segments of indexed curves; ifc_test.cpp looks at those.
        std::string plain =
            std::regex_replace(text, std::regex(",\\(IFC(LINE|ARC)INDEX[^;]*\\),\\.F\\."), ",$,.F.");
        ReaderSTEP reader;
        reader.setMessageCallBack(this, &Read::hear);
        reader.loadModelFromString(plain, model);
    }
    template <class T>
    std::vector<std::shared_ptr<T>> all() const {
        std::vector<std::shared_ptr<T>> found;
        for (const auto& [id, entity] : model->getMapIfcEntities())
            if (auto e = std::dynamic_pointer_cast<T>(entity)) found.push_back(std::move(e));
        return found;
    }
};

std::set<std::wstring> identities(const Read& in) {
    std::set<std::wstring> all;
    for (const auto& root : in.all<IfcRoot>()) {
        EXPECT_EQ(root->m_GlobalId->m_value.size(), 22u);
        EXPECT_TRUE(all.insert(root->m_GlobalId->m_value).second);
    }
    return all;
}

// What every file has to hold, whatever the project.
void holds(const Read& in, const std::string& text) {
    EXPECT_EQ(in.messages, "");
    const auto lines = std::count(text.begin(), text.end(), '\n');
    EXPECT_EQ(std::ptrdiff_t(in.model->getMapIfcEntities().size()), lines - 9)
        << "entities between head and end";
    for (const auto& p : in.all<IfcCartesianPoint>()) ASSERT_EQ(p->m_Coordinates.size(), 3u);
    for (const auto& d : in.all<IfcDirection>()) {
        double sum = 0;
        for (const auto& r : d->m_DirectionRatios) sum += r->m_value * r->m_value;
        ASSERT_NEAR(sum, 1, 1e-6);
    }
    for (const auto& l : in.all<IfcCartesianPointList2D>()) {
        ASSERT_GE(l->m_CoordList.size(), 4u);
        for (const auto& p : l->m_CoordList) ASSERT_EQ(p.size(), 2u);
        EXPECT_EQ(l->m_CoordList.front()[0]->m_value, l->m_CoordList.back()[0]->m_value) << "closed";
        EXPECT_EQ(l->m_CoordList.front()[1]->m_value, l->m_CoordList.back()[1]->m_value);
    }
}

}  // namespace

TEST(IfcSchema, BothDemosAreReadWithTheirSteelAndConcrete) {
    std::set<std::wstring> before;
    for (auto p : {formats::demoProject(), formats::demoFloorProject()}) {
        const auto design = design::run(p, {.trace = false});
        const std::string text = formats::ifcText(p, design);
        const Read in(text);
        holds(in, text);
        const auto schedule = design.schedule();
        double number = 0, mass = 0, volume = 0;
        for (const auto& q : in.all<IfcQuantityCount>()) number += q->m_CountValue->m_value;
        for (const auto& q : in.all<IfcQuantityWeight>()) mass += q->m_WeightValue->m_value;
        for (const auto& q : in.all<IfcQuantityVolume>()) volume += q->m_VolumeValue->m_value;
        double scheduled = 0;
        for (const auto& row : schedule.rows) scheduled += row.total();
        EXPECT_EQ(number, scheduled);
        EXPECT_NEAR(mass, schedule.mass, 1e-3 * schedule.mass);
        EXPECT_GT(volume, 10);
        // The plan's extent, by the outlines of slabs.
        double right = 0;
        for (const auto& l : in.all<IfcCartesianPointList2D>())
            for (const auto& q : l->m_CoordList) right = std::max(right, q[0]->m_value);
        EXPECT_NEAR(right, p.floors.empty() ? model::concreteEnd(*p.slabs[0]) : 29200,
                    p.floors.empty() ? 1 : 400);
        for (const auto& id : identities(in))
            EXPECT_TRUE(before.insert(id).second) << "two projects share none";
        p.name = "Another";
        for (const auto& id : identities(Read(formats::ifcText(p, design))))
            EXPECT_FALSE(before.contains(id));
    }
}

TEST(IfcSchema, EveryMemberHasTheMaterialOfItsKind) {
    auto p = formats::demoFloorProject();
    p.basis.column.concrete = "C45/55", p.basis.beam.concrete = "C40/50";
    const Read in(formats::ifcText(p, design::run(p, {.trace = false})));
    std::map<std::string, std::string> of;  // a kind of entity -> its material
    for (const auto& r : in.all<IfcRelAssociatesMaterial>()) {
        const auto material = std::dynamic_pointer_cast<IfcMaterial>(r->m_RelatingMaterial);
        ASSERT_TRUE(material);
        for (const auto& o : r->m_RelatedObjects) {
            const auto entity = std::dynamic_pointer_cast<BuildingEntity>(o);
            ASSERT_TRUE(entity);
            const std::wstring& name = material->m_Name->m_value;
            of[entity->className()] = std::string(name.begin(), name.end());
        }
    }
    EXPECT_EQ(of["IfcColumn"], "C45/55");
    EXPECT_EQ(of["IfcBeam"], "C40/50");
    EXPECT_EQ(of["IfcSlab"], p.basis.concrete);
    EXPECT_EQ(of["IfcReinforcingBar"], p.basis.steel);
}
