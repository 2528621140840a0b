namespace Daxlin.Core.Corrections;

/// <param name="Id">By which what it added is known; larger than those of all corrections before it.</param>
public sealed record RecordedCorrection(int Id, Correction What);
