using System.Collections.Immutable;
using Daxlin.Core.Recognition;
using Daxlin.Core.Templates.Json;

namespace Daxlin.Bench;

/// <summary>The files that all contenders read, and the templates that capture them.</summary>
internal sealed record Workload(string Name, ImmutableArray<string> Files, TemplateSet Templates)
{
    /// <param name="folder">Holds PDFs and templates, at any depth.</param>
    public static Workload Of(string name, string folder) => new(
        name,
        [.. Directory.GetFiles(folder, "*.pdf", SearchOption.AllDirectories).Order(StringComparer.Ordinal)],
        [.. Directory.GetFiles(folder, "*.template.json", SearchOption.AllDirectories).Select(file => TemplateReader.Read(File.ReadAllText(file)))]);
}
