// The last module of a page: what would not answer before its modules were there (`inert`) answers now.
document.getElementById("main").inert = false;
