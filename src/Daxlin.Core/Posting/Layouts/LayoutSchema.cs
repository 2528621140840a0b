namespace Daxlin.Core.Posting.Layouts;

/// <summary>The JSON Schema (draft 2020-12) of a layout document, for editors; <see cref="LayoutReader"/> checks more.</summary>
public static class LayoutSchema
{
    /// <summary>The schema as UTF-8 JSON.</summary>
    public static Stream Open() => typeof(LayoutSchema).Assembly.GetManifestResourceStream("layout.schema.json")!;
}
