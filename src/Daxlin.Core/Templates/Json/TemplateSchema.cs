namespace Daxlin.Core.Templates.Json;

/// <summary>The JSON Schema (draft 2020-12) of a template document, for editors; <see cref="TemplateReader"/> checks more.</summary>
public static class TemplateSchema
{
    /// <summary>The schema as UTF-8 JSON.</summary>
    public static Stream Open() => typeof(TemplateSchema).Assembly.GetManifestResourceStream("template.schema.json")!;
}
