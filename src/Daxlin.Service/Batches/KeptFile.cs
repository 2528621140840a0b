namespace Daxlin.Service.Batches;

/// <summary>A file whose bytes are kept, and that is in no batch yet.</summary>
/// <param name="Sha256">Empty for one that was too large to be kept.</param>
internal sealed record KeptFile(string Name, string Sha256, long Size);
