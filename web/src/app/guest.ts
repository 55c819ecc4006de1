/** Whether this page is open on another machine of the local network, from where the rig is looked at and procedures are run, and nothing is changed. */
let guest = false;

export const isGuest = () => guest;
export const setGuest = (is: boolean) => {
  guest = is;
};

export const GUEST_WORDS = "From here you can look and run procedures. Change the rig on the first machine.";
