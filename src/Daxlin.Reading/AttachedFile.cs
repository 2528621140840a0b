namespace Daxlin.Reading;

/// <summary>A file that a PDF carries.</summary>
/// <param name="Bytes">Null if they are damaged.</param>
public sealed record AttachedFile(string Name, ReadOnlyMemory<byte>? Bytes);
