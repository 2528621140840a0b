namespace Daxlin.Core.Corrections;

/// <summary>A correction as it was made, or one that takes another back.</summary>
/// <param name="Id">Larger than those of all before it.</param>
/// <param name="What">Null for one that takes another back.</param>
/// <param name="Undoes">The one that is taken back; taken back itself, that one holds again.</param>
public sealed record MadeCorrection(int Id, Correction? What, int? Undoes = null);
