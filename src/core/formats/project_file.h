// The project file (.talvik): JSON with sorted keys, units in the keys. Written atomically.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "model/project.h"

namespace talvik::formats {

inline constexpr int projectFileVersion = 17;

std::string projectText(const model::Project& project);

// A project, or located sentences when `trouble` is not empty: syntax with line and column, missing, unknown
// and mistyped keys with their path, values out of range, duplicate ids, a version newer than this program.
struct ReadProject {
    model::Project project;
    std::vector<model::Diagnostic> trouble;
};
ReadProject readProject(std::string_view text);
ReadProject openProject(const std::string& path);
std::string saveProject(const std::string& path, const model::Project& project);  // empty, or why not

// The basis of design alone, for the next project. Reading fails like that of a project.
struct ReadBasis {
    model::Basis basis;
    std::vector<model::Diagnostic> trouble;
};
std::string templateText(const model::Basis& basis);
ReadBasis readTemplate(std::string_view text);
ReadBasis openTemplate(const std::string& path);
std::string saveTemplate(const std::string& path, const model::Basis& basis);  // empty, or why not

// The demos that ship with the program: the gallery slab, and the deck of the fish hall.
model::Project demoProject();
model::Project demoFloorProject();

// One sentence per diagnostic: "slabs[0].thickness_mm: ...".
std::string sentences(const std::vector<model::Diagnostic>& trouble);

// The project with a copy of an element behind it, called `name`, all its ids new; its fixed bars and loads
// are the copy's own. `copy` is its id; empty, and the project as it was, where there is no such element.
struct Copied {
    model::Project project;
    model::Id copy;
};
Copied withCopy(const model::Project& project, const model::Id& element, const std::string& name);

}  // namespace talvik::formats
