namespace Daxlin.Core.Posting.Coding;

/// <summary>The JSON Schema (draft 2020-12) of coding rules, for editors; <see cref="CodingReader"/> checks more.</summary>
public static class CodingSchema
{
    /// <summary>The schema as UTF-8 JSON.</summary>
    public static Stream Open() => typeof(CodingSchema).Assembly.GetManifestResourceStream("coding.schema.json")!;
}
