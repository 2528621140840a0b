namespace Daxlin.Service.Sources;

/// <summary>What came of a look.</summary>
/// <param name="Taken">How many files or messages were taken.</param>
/// <param name="Documents">How many documents of them.</param>
/// <param name="LeftOut">How many parts were left out.</param>
/// <param name="Waiting">How many are there that have not settled yet, or that the next look comes to.</param>
/// <param name="Again">How long until the next look.</param>
internal sealed record LookedAt(int Taken, int Documents, int LeftOut, int Waiting, TimeSpan Again);
