namespace Daxlin.Core.Sources;

/// <summary>The JSON Schema (draft 2020-12) of sources, for editors; <see cref="SourceReader"/> checks more.</summary>
public static class SourceSchema
{
    /// <summary>The schema as UTF-8 JSON.</summary>
    public static Stream Open() => typeof(SourceSchema).Assembly.GetManifestResourceStream("source.schema.json")!;
}
