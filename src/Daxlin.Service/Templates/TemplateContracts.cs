using System.Collections.Immutable;
using System.Text.Json;

namespace Daxlin.Service.Templates;

/// <summary>A template as the list shows it.</summary>
/// <param name="Version">The newest version, from 1.</param>
public sealed record TemplateSummary(string Name, string Vendor, string Currency, int Version, DateTime SavedAt, string SavedBy);

/// <summary>A template with its document.</summary>
public sealed record TemplateDetail(
    string Name, string Vendor, string Currency, int Version, DateTime SavedAt, string SavedBy, JsonElement Document);

/// <summary>What saving a template came to.</summary>
/// <param name="IsNew">False if the newest version says the same, so that none was added.</param>
public sealed record TemplateSaved(string Name, int Version, bool IsNew);

/// <summary>What is wrong with a template document; nothing is saved.</summary>
/// <param name="File">The file it came from; empty for one that was sent.</param>
/// <param name="Name">The template's name, or empty if it cannot be used.</param>
/// <param name="Faults">Empty if it is in order.</param>
public sealed record TemplateChecked(string File, string Name, ImmutableArray<TemplateFaultRecord> Faults);

/// <summary>One thing wrong with a template document.</summary>
/// <param name="Place">The key's path.</param>
/// <param name="Line">From 1.</param>
/// <param name="Severity"><c>fault</c>, or <c>warning</c> for what the template can be used with all the same.</param>
public sealed record TemplateFaultRecord(string Place, int Line, string Message, string Severity);
