namespace Daxlin.Core.Posting.Receivers;

/// <summary>The JSON Schema (draft 2020-12) of receivers, for editors; <see cref="ReceiverReader"/> checks more.</summary>
public static class ReceiverSchema
{
    /// <summary>The schema as UTF-8 JSON.</summary>
    public static Stream Open() => typeof(ReceiverSchema).Assembly.GetManifestResourceStream("receiver.schema.json")!;
}
