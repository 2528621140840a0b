namespace Daxlin.Service.Demo;

/// <summary>Whether made-up invoices are at hand to try Daxlin on.</summary>
public sealed record DemoOffer(bool IsAtHand);

/// <summary>What was taken in.</summary>
/// <param name="Batch">The batch that holds the invoices.</param>
/// <param name="Templates">How many vendors' templates were saved; one vendor's is left to be made.</param>
public sealed record DemoTaken(int Batch, int Documents, int Templates);
