namespace Daxlin.Core.People;

/// <summary>What a person is to the department. A person can be several.</summary>
public enum Role
{
    /// <summary>Takes invoices in, corrects them, makes templates and layouts, and posts what others approved.</summary>
    Clerk,

    /// <summary>Approves invoices and confirms bank details, and can do what a clerk does.</summary>
    Approver,

    /// <summary>Looks after people, keys, receivers and closed periods. Approves nothing unless an approver, too.</summary>
    Administrator,

    /// <summary>Reads everything, changes nothing.</summary>
    Auditor,
}
